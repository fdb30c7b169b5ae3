/** Where forms that are half filled in are kept, so that they outlive leaving the page, an ended session and a new version. */
const PLACE = 'jam-drafts';

/** Half-filled forms of whoever used this device last, by the name of the form. */
interface Drafts {
  readonly personId: string;
  readonly forms: Readonly<Record<string, object>>;
}

const NONE: Drafts = { personId: '', forms: {} };

function read(): Drafts {
  try {
    const kept = JSON.parse(localStorage.getItem(PLACE) ?? 'null') as Partial<Drafts> | null;
    return { ...NONE, ...kept };
  } catch {
    return NONE;
  }
}

/** A browser that keeps nothing, or is full, keeps the form in the page alone. */
function write(drafts: Drafts): void {
  try {
    localStorage.setItem(PLACE, JSON.stringify(drafts));
  } catch {
    // What is typed still stands in the page.
  }
}

/** Half-filled forms on this device. Nothing with a password is ever kept. */
export const drafts = {
  /** Says whose they are; those of somebody else go. */
  belongTo: (personId: string): void => {
    if (read().personId !== personId) write({ personId, forms: {} });
  },
  of: (form: string): object | undefined => read().forms[form],
  put: (form: string, fields: object): void => {
    const { personId, forms } = read();
    write({ personId, forms: { ...forms, [form]: fields } });
  },
  drop: (form: string): void => {
    const { personId, forms } = read();
    write({ personId, forms: Object.fromEntries(Object.entries(forms).filter(([name]) => name !== form)) });
  },
  /** Forgets all of them, as when somebody signs out. */
  forget: (): void => write(NONE),
} as const;
