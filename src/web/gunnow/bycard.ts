/** What a card's code brings along to a gun's page, so that it knows how one came to it. */
export const BY_CARD = { isByCard: true }
