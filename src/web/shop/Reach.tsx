/** The page was opened on the machine that serves it. */
export const isLoopback = () => ['localhost', '127.0.0.1', '[::1]'].includes(location.hostname)

/** Who can reach the program from where, and what is off because of it. */
export function Reach() {
  return (
    <section aria-label="Phones and tablets">
      <h2>Phones and tablets</h2>
      {isLoopback() ? (
        <p className="said">
          You are on the machine itself. Others reach it only when it was started with <code>npm start -- --lan</code>,
          which prints the address for phones and how they come to trust it. Without that these are off: the program on
          phones and tablets, their cameras for scanning, and codes on cards that a phone opens.
        </p>
      ) : window.isSecureContext ? (
        <p className="said">
          This page came over an encrypted line: phones and tablets, cameras and card codes all work.
        </p>
      ) : (
        <p className="said">
          This page came over a plain line: the camera is off, and what is sent can be read on the way. Open the https
          address that the program printed when it was started.
        </p>
      )}
    </section>
  )
}
