/** How a percussion instrument sounds: times are time constants in seconds, loudness is a share. */
export interface Drum {
  /** A tone of a frequency in hertz, which begins higher by a share of it and falls. */
  tone: { hertz: number; falls: number; lasts: number; loud: number };
  /** Noise above a frequency in hertz, of which a share is the clang of metal. */
  noise: { above: number; lasts: number; loud: number; metal: number };
}

/** A skin: a tone that falls, and a little noise from the stick. */
const skin = (hertz: number, lasts: number, falls = 0.5): Drum => ({
  tone: { hertz, falls, lasts, loud: 1 },
  noise: { above: 800, lasts: 0.01, loud: 0.25, metal: 0 },
});

/** A piece of wood or metal with a pitch. */
const block = (hertz: number, lasts: number): Drum => ({
  tone: { hertz, falls: 0, lasts, loud: 0.6 },
  noise: { above: 2000, lasts: 0.006, loud: 0.2, metal: 0 },
});

/** A cymbal, or something else without a pitch. */
const rattle = (above: number, lasts: number, metal: number, loud = 0.5): Drum => ({
  tone: { hertz: 100, falls: 0, lasts: 0.001, loud: 0 },
  noise: { above, lasts, loud, metal },
});

const snare = (hertz: number, lasts: number): Drum => ({
  tone: { hertz, falls: 0.3, lasts: 0.06, loud: 0.5 },
  noise: { above: 900, lasts, loud: 0.6, metal: 0 },
});

/** The instruments of a kit by the keys of General MIDI's percussion key map (General MIDI Level 1). */
const drums: Readonly<Record<number, Drum>> = {
  35: skin(44, 0.2, 2),
  36: skin(50, 0.16, 2.4),
  37: block(1700, 0.015),
  38: snare(190, 0.09),
  39: rattle(1000, 0.07, 0, 0.7),
  40: snare(230, 0.07),
  41: skin(78, 0.22),
  42: rattle(6500, 0.022, 0.5, 0.6),
  43: skin(95, 0.2),
  44: rattle(6000, 0.03, 0.5, 0.4),
  45: skin(115, 0.19),
  46: rattle(6000, 0.2, 0.5),
  47: skin(140, 0.17),
  48: skin(165, 0.16),
  49: rattle(3500, 0.55, 0.4, 0.6),
  50: skin(196, 0.15),
  51: rattle(5000, 0.35, 0.8, 0.35),
  52: rattle(2500, 0.45, 0.6, 0.6),
  53: block(2600, 0.25),
  54: rattle(7000, 0.06, 0.7, 0.9),
  55: rattle(4500, 0.2, 0.4, 0.55),
  56: block(640, 0.07),
  57: rattle(3000, 0.6, 0.4, 0.6),
  58: rattle(1800, 0.25, 0.9, 0.4),
  59: rattle(5500, 0.3, 0.8, 0.35),
  60: skin(420, 0.05, 0.1),
  61: skin(300, 0.06, 0.1),
  62: skin(380, 0.03, 0.1),
  63: skin(340, 0.09, 0.1),
  64: skin(230, 0.1, 0.1),
  65: skin(310, 0.12, 0.2),
  66: skin(240, 0.13, 0.2),
  67: block(890, 0.11),
  68: block(660, 0.11),
  69: rattle(5000, 0.035, 0, 0.4),
  70: rattle(7500, 0.02, 0, 0.4),
  71: block(2300, 0.05),
  72: block(2250, 0.2),
  73: rattle(2500, 0.04, 0.3, 0.4),
  74: rattle(2300, 0.12, 0.3, 0.4),
  75: block(2500, 0.02),
  76: block(1150, 0.025),
  77: block(820, 0.03),
  78: skin(520, 0.05, -0.4),
  79: skin(400, 0.12, -0.4),
  80: block(4200, 0.05),
  81: block(4200, 0.6),
};

/** What plays at a key; keys beyond the map have a wooden block of their pitch. */
export function drumAt(key: number): Drum {
  return drums[key] ?? block(440 * 2 ** ((key - 69) / 12), 0.04);
}

/** Keys that silence each other, as the two cymbals of a hi-hat do when they are closed (common practice). */
export function chokes(key: number): string | undefined {
  return key === 42 || key === 44 || key === 46 ? "hi-hat" : undefined;
}
