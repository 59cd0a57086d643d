/** A window in which a line and its figures must do with the room that there is. */
export const smallPage = '(max-width: 760px), (max-height: 480px)';
