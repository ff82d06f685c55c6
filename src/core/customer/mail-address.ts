/** A whole mail address, name@post.example. Written so that no text takes longer than its own length. */
export const MAIL_ADDRESS = /^[^\s@<>"]+@[^\s@<>"]+\.[^\s@<>".]+$/;
