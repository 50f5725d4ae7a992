import { get, post } from "../api/http";
import type { ProjectState, SetList } from "../api/types";
import type { Session } from "./session.svelte";

/** Projects in the order in which they are to be played. */
export class SetLists {
  #lists = $state.raw<SetList[]>([]);

  constructor(private readonly session: Session) {}

  get all(): SetList[] {
    return this.#lists;
  }

  /** The set list in which the project that is open is, if one is. */
  get current(): SetList | undefined {
    return this.#lists.find(({ projects }) => projects.includes(this.session.document));
  }

  refresh(): Promise<void> {
    return this.session.attempt(async () => {
      this.#lists = await get<SetList[]>("api/setlists");
    });
  }

  /** Keeps a set list; one without projects is deleted. */
  keep(list: SetList): Promise<void> {
    return this.session.attempt(async () => {
      this.#lists = await post<SetList[]>("api/setlists", list);
    });
  }

  /** Opens the project so many places after the one that is open; while that plays it comes in with the next bar. */
  goOver({ name }: SetList, places: number): Promise<void> {
    return this.session.turnTo((revision) =>
      post<ProjectState>("api/setlists/go", { name, places, revision }),
    );
  }
}
