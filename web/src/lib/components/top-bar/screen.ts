/** A screen: what it is called and for, and where it is. */
export interface Screen {
  name: string;
  /** The part of the address behind the #. */
  address: string;
  help: string;
}
