"""What the help tells, topic by topic: a few sentences each, a picture made of the things it speaks of, and other words
it is found by in the Finder."""

from __future__ import annotations

from typing import NamedTuple

from larch.core.base.words import N_


class Topic(NamedTuple):
    """title, words and lines: marked with N_. scene: entries of the shelf that are laid side by side in its picture."""

    name: str
    title: str
    words: str
    scene: tuple[str, ...]
    lines: tuple[str, ...]


TOPICS = (
    Topic("tools", N_("Tools and the ledge"), N_("start begin ledge toolbar pen select"),
          ("mark lantern", "mark tick", "mark star"), (
        N_("The tools lie on the ledge. The one in hand stands proud; press it again for its choices."),
        N_("What finds no room on a small screen lies under “more”. The ledge can lie along any edge: View > Ledge."),
        N_("Ctrl+K finds anything that can be done or put out, by what you call it."),
    )),
    Topic("shelf", N_("Put something out"), N_("shelf equipment insert add keep supply"), ("hundreds", "die", "clock"), (
        N_("The shelf holds everything: search, then tap or drag. The wheel moves it along."),
        N_("A supply hands out a fresh copy on every drag; it is moved by its gold grip."),
        N_("Drag things onto the bin to throw them away, or rest them on the open shelf to keep them for every lesson."),
    )),
    Topic("select", N_("Select, size, turn"), N_("move rotate scale group align row arrange several"),
          ("square", "triangle"), (
        N_("Drag over empty page to draw a box round things; Shift adds. The gold brackets size, the disc turns, the rings "
           "change a shape."),
        N_("A dragged thing falls into line with others and says why; Alt holds that off."),
        N_("Rows, grids and circles of several things are under “arrange”; “lay out” among the facts makes copies: 4 x 3."),
    )),
    Topic("facts", N_("Measures: see and type them"), N_("facts length angle area size value scale"), ("right triangle",), (
        N_("Ctrl+I shows what a thing knows. Type a value and it comes true: AB = 5, an angle, an area."),
        N_("An eye beside a fact shows it on the page; a double tap on it there lets you type it."),
        N_("With nothing selected the card is about the page: its paper, its scale, and what pupils may do at the Board."),
    )),
    Topic("pens", N_("Pens and rubbing out"), N_("ink write draw highlighter eraser wipe colour"),
          ("mark ring", "mark cross"), (
        N_("The pen has nibs, straight lines, arrows and dashes; lay the pens you use ready."),
        N_("The eraser takes what it touches, whole strokes, or what a ring encloses; a flat hand rubs out too."),
        N_("Wipe takes all ink and nothing else. “Keep what is written” locks what should stay."),
    )),
    Topic("reading", N_("Handwriting and shapes, read"),
          N_("recognise convert handwriting ink true up shape equation words"), ("square",), (
        N_("Select ink: “true up” makes an exact shape of it, “to mathematics” an equation, “to words” type on its line."),
        N_("The card beside it offers what else it could be, and to stay as ink. “Bring the ink back” undoes it later."),
        N_("Press the pen again for pens that read what they write after a pause; how long is in Edit › Handwriting."),
    )),
    Topic("put right", N_("Handwriting put right, numbers written on equipment"),
          N_("correct digit strike out number line clock chart abacus matrix columns by hand"), ("number flag",), (
        N_("Tap a sign on the card for what else it could be; write over a part of an equation, or strike it to and fro."),
        N_("A number written on a number line becomes a flag to be dragged; clock, chart and abacus take theirs, too."),
        N_("“By hand” on the tray of keys is a place to write in: what is written goes to the caret."),
    )),
    Topic("words", N_("Words, notes and tables"), N_("text type font sticky note table cell row column list"),
          ("note", "table"), (
        N_("Tap with the text tool and type. Sizes are named for the distance they are read from."),
        N_("On ruled paper words stand on the lines. Names in braces, such as {AB}, tell a measure."),
        N_("Tap the words in a cell for rows and columns; a picture dropped on a cell fits into it."),
    )),
    Topic("paper", N_("Papers"), N_("background lines squares ruled grid handwriting page size"),
          ("paper squared", "paper ruled"), (
        N_("A tap on a paper lays it under the page; a drag lays out a piece."),
        N_("Its line height, margin and colours can be typed: Ctrl+I with nothing selected."),
    )),
    Topic("construct", N_("Construct"), N_("geometry compasses line circle midpoint perpendicular reflect rotate"),
          ("circle", "angle"), (
        N_("Choose a construction by its picture; its question stands above the ledge. Tap, or drag from one to the next."),
        N_("What follows stays with what it follows from. What can't be there fades, says why, and comes back."),
        N_("Geometry > Steps of the construction tells how it was made."),
    )),
    Topic("instruments", N_("Ruler, set square, protractor, compasses"), N_("measure draw edge instrument degrees"), (
        "ruler", "protractor"), (
        N_("Lay a pen to an edge and it draws along it. One finger slides an instrument, two turn it."),
        N_("“Draws figures” makes what is drawn know its measure; “put away” ends it, at the Board too."),
    )),
    Topic("share", N_("Fractions: share and cut a shape"), N_("fraction parts half third quarter cut slice divide"), (
        "circle", "rectangle"), (
        N_("“Share into…” divides a shape into equal parts that fit together exactly."),
        N_("Select a shape and a line, a polyline or ink across it to cut it there."),
        N_("Several shapes join, overlap or are taken away from each other, with their areas."),
    )),
    Topic("graphs", N_("Graphs, axes and number lines"), N_("function equation coordinates plot number line"), ("axes",), (
        N_("Put out axes, write an equation with the equation tool, and its graph is drawn in a hue of its own. "
           "With several axes on a page, select an equation and one of them: “draw on these axes”."),
        N_("Circles, regions (y < 2x), pieces and points (2, 3) are drawn, too; so is a_(n+1) = a_n/2 + 3, with a_1 = 4 "
           "on the page. The ranges of x and y can be typed."),
        N_("“Mark what stands out” shows zeros, turning points, poles, and where marked graphs meet."),
    )),
    Topic("by hand", N_("Graphs moved by hand, tables, areas"),
          N_("drag curve vertex gradient table values points fit area integral derivative axes scale"), ("value table",), (
        N_("Drag a curve or one of its rings: the equation follows in the form in which it is written. Ctrl: freely."),
        N_("Axes are shifted by their lines, stretched by their ends, scaled by their numbers or by two fingers."),
        N_("“Table of values”, “area under it”, “staircase” and what is drawn besides a graph are on its tag."),
    )),
    Topic("equations", N_("Equations and solutions"),
          N_("equation expression fraction power root solve steps check working slider letter calculator"),
          ("slider", "calculator"), (
        N_("Write as it looks: / makes a fraction of what stands before it, ^ a power, sqrt a root; a space leaves it."),
        N_("Shift and Enter, or “next line”, begin a line that is to follow; “check the lines” tells whether it does."),
        N_("a = 3 holds for the page, and so does a slider; 4a = shows what it comes to. Solve is on its tag."),
    )),
    Topic("numbers", N_("Blocks, abacus, dice and clocks"), N_("count place value ten hundred counter chance time wheel"), (
        "abacus", "die", "clock"), (
        N_("Slide blocks together; a selection shows its total, and ten of a kind are exchanged for one."),
        N_("At the Board beads and hands are moved by many fingers; ten blocks laid together become one of the next."),
        N_("By keys: N takes the next part of a thing in hand, arrows move it, Enter taps it."),
    )),
    Topic("charts", N_("Charts, frames, cards and lines"),
          N_("place value chart ten frame value cards dials rods array number line grid order count"), (
        "ten frame", "value card", "rod"), (
        N_("What lies in a place-value chart is said in figures, words and expanded form; “as few as possible” exchanges."),
        N_("Cards slide over each other to one number; counters fall into cells and are turned over by a tap."),
        N_("On a number line marks and jumps are dragged, or typed: +3 +5. “Hide the values” leaves them to be found."),
    )),
    Topic("parts", N_("Fractions as bars, circles and sets"), N_("fraction bar circle wall percent decimal equal compare"), (
        "fraction bar",), (
        N_("Tap parts to take them. Bars fall edge to edge, so that equal fractions are seen to be equally long."),
        N_("“Cut each part in two” and “put two parts together” change the parts and keep the amount."),
    )),
    Topic("chances", N_("Chances and trials"),
          N_("coin spinner bag dice tree two-way table random names pick probability"), (
        "spinner", "coins", "bag"), (
        N_("A tap tosses, spins, draws; “a thousand times” makes as many trials at once. Theory stands beside the tally."),
        N_("The same page tosses the same again: its chance has a seed."),
        N_("The picker takes everyone once before anyone comes again, and deals groups."),
    )),
    Topic("ask", N_("Ask: tasks that are checked"), N_("task question check quiz right wrong answer test"), (
        "clock", "task"), (
        N_("Set a thing as it should come out, choose “ask for this”, then put the thing back to where the class begins."),
        N_("Among the card's facts: what it says, which fact it asks for, how exactly, a hint, or a rule for new ones."),
        N_("A tap on Check says right, or not yet and what is there now. A card may want a number: write it there."),
    )),
    Topic("hide", N_("Hide an answer"), N_("frost cover reveal layers lock answer"), ("frost",), (
        N_("Frost over hides something until it is rubbed off at the Board; exports leave it out unless asked."),
        N_("Layers (Ctrl+Shift+L) lists all that is on a page: lock it, hide it, drag it up or down, take a group."),
    )),
    Topic("board", N_("At the Board"), N_("present full screen class pupils students allow"), ("mark star", "die"), (
        N_("F5 goes to the Board. Hold the button at the left end of the ledge, or press Esc, to come back."),
        N_("The Board belongs to the class: what pupils may do is set for each page among its facts."),
        N_("Set out remembers how a page is laid; the flag brings it back. Several set-outs have names to choose from."),
    )),
    Topic("safe", N_("Saving, printing, handing on"), N_("save open recover lost export pdf png svg print"), ("note",), (
        N_("Nothing needs saving to be kept: every change, and what is being typed, is on disk at once and comes back after "
           "a crash. Ctrl+S saves also while you type."),
        N_("Lessons that have no file lie under Lesson > Lessons without a file, with their first words and a picture."),
        N_("Ctrl+P prints, Ctrl+E exports as PDF, PNG or SVG, with answers or without."),
    )),
    Topic("keys", N_("By keyboard"), N_("keyboard shortcut keys accessibility screen reader"), (), (
        N_("Tab goes from thing to thing, arrows move it (Shift: further), N takes its next corner, Enter opens or "
           "rolls it."),
        N_("K keeps what is selected while Tab goes on. F6 goes round the parts of the window; Esc comes back to the page."),
        N_("Enter places a text or an equation; the Menu key opens what can be done."),
    )),
)  # fmt: skip

KEYS_ON_THE_PAGE = (
    ("Tab, Shift+Tab", N_("next thing, thing before")),
    (N_("arrows"), N_("move what is selected, or the page; with Shift further")),
    ("Enter", N_("open, roll, or place what is to be typed")),
    ("Esc", N_("give up, select nothing, leave")),
    ("Enter, Esc, ↓", N_("beside ink that a pen reads: take the likeliest, leave the ink, go onto the card")),
    (N_("Space, held"), N_("move the page")),
    (N_("Menu"), N_("what can be done with the selection")),
    ("+ - [ ] .", N_("size, turn and colour of a shape")),
    ("F2, Del, Alt+←, Alt+→, Ctrl+D", N_("in the spread: rename, delete, move, copy a page")),
    ("Ctrl+B, Ctrl+I, Ctrl+U", N_("in words: bold, italic, underlined")),
    ("Ctrl+. Ctrl+,", N_("in words: raised, lowered")),
    ("Ctrl+M", N_("in words: as mathematics, and as words again")),
)
