import { get, post, remove } from "../api/http";
import type { ListedProject, NewProjectRequest, ProjectState } from "../api/types";
import type { Session } from "./session.svelte";

/** The projects of the folder, and what can be done with them. */
export class Library {
  #projects = $state.raw<ListedProject[]>([]);
  /** Whether a project that is opened while another plays comes in at once, not with the next bar. */
  atOnce = $state(false);

  constructor(private readonly session: Session) {}

  /** The projects, the one that was changed last first. */
  get projects(): ListedProject[] {
    return this.#projects.filter((project) => !project.deleted);
  }

  get deleted(): ListedProject[] {
    return this.#projects.filter((project) => project.deleted);
  }

  async refresh(): Promise<void> {
    await this.session.attempt(async () => {
      this.#projects = await get<ListedProject[]>("api/projects");
    });
  }

  open(id: number): Promise<void> {
    return this.session.turnTo((revision) =>
      post<ProjectState>(`api/projects/${id}/open`, { revision, atOnce: this.atOnce }),
    );
  }

  add(from: NewProjectRequest["from"]): Promise<void> {
    return this.session.turnTo((revision) =>
      post<ProjectState>("api/projects", { revision, from, atOnce: this.atOnce }),
    );
  }

  /** Takes the text of a project file as another project, and opens it; returns why it cannot. */
  import(text: string): Promise<string | undefined> {
    const atOnce = this.atOnce ? "&atOnce" : "";
    return this.session.changeByFile((revision) =>
      post<ProjectState>(`api/projects/file?revision=${revision}${atOnce}`, text),
    );
  }

  copy(id: number): Promise<void> {
    return this.#change(() => post(`api/projects/${id}/copy`, {}));
  }

  /** Gives a project another name; the open one's is an edit like all others, which waits for those before it. */
  rename(id: number, name: string): Promise<void> {
    if (id === this.session.document) return this.session.edit({ setProject: { name } });
    return this.#change(() => post(`api/projects/${id}/name`, { name }));
  }

  delete(id: number): Promise<void> {
    return this.#change(() => remove(`api/projects/${id}`));
  }

  restore(id: number): Promise<void> {
    return this.#change(() => post(`api/projects/${id}/restore`, {}));
  }

  #change(ask: () => Promise<ListedProject[]>): Promise<void> {
    return this.session.attempt(async () => (this.#projects = await ask()));
  }
}
