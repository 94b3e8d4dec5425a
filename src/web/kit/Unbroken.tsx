/** A sentence in which no word is parted at its hyphen: a part's code is read as one. */
export const Unbroken = ({ text }: { text: string }) =>
  text.split(/(\S+-\S+)/).map((piece, i) =>
    // Every other piece is such a word.
    i % 2 === 1 ? (
      <span key={i} className="unbroken">
        {piece}
      </span>
    ) : (
      piece
    ),
  )
