/** The words that are not plain, and what they mean here. */
export const WORDS: readonly (readonly [word: string, meaning: string])[] = [
  [
    'Rack',
    'Your projects, kept in this browser alone. Back it up into one file now and then; dropped on a Rack, the file brings everything back.',
  ],
  [
    'Bench',
    'Where one project is worked on: the Model on the left, the Board with the flat shells on the right.',
  ],
  ['Seam', 'A chain of cut edges, drawn as a stitch. UVs break at seams and nowhere else.'],
  [
    'Route',
    'A chain of edges through points that are clicked, as short or as hidden as the slider says. It runs in folds and where little is seen.',
  ],
  [
    'Exposure',
    'How much is seen of a place from far away, 0 to 1, mostly from the front, all round, from the front alone or from above.',
  ],
  [
    'Symmetry',
    'While it is on, every pick takes its counterpart along. It applies to choosing seams, never to moving shells.',
  ],
  [
    'Lock',
    'Whether a shell is finished: no act moves it, cuts it or lays it otherwise until it is unlocked. What is meant for all leaves it out, and says so.',
  ],
  [
    'Limits',
    'How much stretch, which angles, and what difference of scale are put up with. States, findings and Deliver go by them; they are kept with the project.',
  ],
  [
    'Patch',
    'A named set of faces that is meant to become a shell. Painted, or made of picked faces; a face is in one at most.',
  ],
  [
    'Shift',
    'A seam moves over to another place. Only what it passes is laid anew, beside the shell it goes to.',
  ],
  [
    'Proposed seams',
    'Seams for few shells with little stretch, drawn as light stitches with what would come of them. Nothing is cut until you say so.',
  ],
  ['Border', 'Where the mesh of the file ends, drawn as a thin line: nobody cut it.'],
  ['Shell', 'A piece of the model as it lies flat, bounded by seams and borders.'],
  [
    'UV set',
    'One way in which the model lies flat, with seams, pins and places of its own. A model may have several; one of them is worked on.',
  ],
  ['Unfold', 'To lay a shell flat so that angles are kept as well as can be.'],
  [
    'Relax',
    'To even out stretch within a shell: area gains, angles give up a little, no face flips, and what lies on itself is laid beside itself.',
  ],
  [
    'Stretch',
    'How far the flat shell departs from the surface. L2 is 1 where nothing stretches; the worst stretch is that of the worst face.',
  ],
  [
    'Flipped, collapsed',
    'Faces that lie upside down in the flat, or have no area there. Paint cannot reach them.',
  ],
  [
    'Folded',
    'A polygon with a corner that turns back in the flat: other programs split it another way and flip a part of it.',
  ],
  ['Overlap', 'Faces that lie on one another in the flat, and so share their paint. Marked with dots.'],
  [
    'Tile',
    'What one texture fills; a UV set may have several, numbered 1001, 1002 and on to the right, 1011 above the first. Each has the size of its texture and a padding. Its use is the part that shells cover.',
  ],
  ['Density', 'Pixels of the texture to a unit of the model. Even where every shell has the same.'],
  [
    'Laid out afresh, places kept',
    'Until a shell was moved or packed, the Board lays all of them out after every act. From then on they keep their places, and one that no longer fits waits beside the tiles.',
  ],
  ['Gingham', 'The default checker: warp and weft are tinted differently so that direction shows.'],
  ['Pin', 'A place of the flat that holds its UV while the rest of its shell unfolds or relaxes round it.'],
  ['Stay', 'A chain of edges that lies straight at true length, like tape along a cloth edge.'],
  [
    'Ellipses',
    'What becomes of small circles of the other pane: round and of one size where nothing stretches, long where it does, and along which way.',
  ],
  [
    'Grain',
    'The way the material of a shell runs: along edges that you pick, and upwards on the texture, however it is unfolded.',
  ],
  [
    'Trial',
    'A kept result of an unfold or relax, also of one that was taken back. Two can be compared, and any be taken up again while its shells are cut as they were.',
  ],
  [
    'Strip',
    'A shell laid out as a straight rectangle: a pipe that is cut lengthwise, a belt, a tread, a hem.',
  ],
  [
    'Projection',
    'Faces laid flat as a plane, cylinder, sphere or box sees them. Side faces of a plane collapse; a wrap has its seam at the back.',
  ],
  ['Finding', 'One thing that is wrong with the file, or with how it lies flat, and what would help.'],
];

/** Ten minutes with the demo, step by step. */
export const WALK: readonly (readonly [title: string, steps: string])[] = [
  [
    'Open the Toad ferryman from the Rack',
    'Left is the Model, right the Board. Drag to turn the one and to move the other; the wheel zooms to the pointer.',
  ],
  [
    'Look at the checker',
    'Squares that are not square say where the texture will stretch. Press B for the map of area, B again for angles, then for how much is seen of the surface, and once more for none. V takes the checker away.',
  ],
  [
    'Read the shells',
    'The list on the right judges each of them in a word. Click shell 5, a hind leg: “Stretched”, with the reason. F brings it into view in both panes, G shows it alone; G again shows everything.',
  ],
  [
    'See a cut before you make it',
    'Press 2, Q, and Shift Q until edges are picked. Point at an edge that runs down the inside of that leg: a double click takes its whole loop, from hip to foot. The outline on the Board is what a cut would make of it, with its stretch.',
  ],
  [
    'Cut, and sew',
    'Press A: the shells beside the seam lie flat anew at once, and the strip below tells each figure from and to. Ctrl Z takes it back. Pick a seam and press Shift A to sew it.',
  ],
  [
    'Relax',
    'With nothing selected, D evens out all shells; with shells selected, those. The energy in the header falls towards 4, which is perfect. Stop or Escape keeps the best so far.',
  ],
  [
    'Inspect',
    'Press 4 and click on Overlaps below: the faces that lie on one another are selected, and dots mark them. Cut there, or move the shells apart.',
  ],
  [
    'Arrange',
    'Press 5. Pick a shell on the Board and drag it, or type where it shall lie, how turned and how large, in the column on the right. “Pack the tile”, or M, lays all of them in, as large as they go, better the more time you give it; how large its texture is, and how far apart shells lie on it, is told under Tiles.',
  ],
  [
    'Deliver',
    'Press 6. What is still wrong is listed with a button to see it. Export the model, and the template to paint on.',
  ],
  [
    'Close the tab whenever you like',
    'Everything is kept as you do it, and every act can be taken back, tomorrow as well.',
  ],
];
