//! Pages of marks in millimetres, x to the right, y down from the top left corner.

use crate::Paper;
use crate::text::Faces;

/// Free edge around a page, mm.
pub(crate) const MARGIN: f64 = 12.0;
/// Room at the foot for the check rule and the page's number, mm.
const FOOT: f64 = 16.0;

/// Something drawn.
#[derive(Clone, Debug, PartialEq)]
pub(crate) enum DrawnMark {
    /// A line of text: where its left end stands on its base line, its size in points.
    Text { x: f64, y: f64, size: f64, bold: bool, grey: bool, text: String },
    /// A straight line.
    Line { from: (f64, f64), to: (f64, f64), width: f64 },
    /// An empty box.
    Box { x: f64, y: f64, width: f64, height: f64 },
    /// A circle.
    Circle { x: f64, y: f64, radius: f64 },
}

/// How a paragraph is set.
#[derive(Clone, Copy, Debug)]
pub(crate) struct TextStyle {
    pub(crate) size: f64,
    pub(crate) bold: bool,
    pub(crate) grey: bool,
}

/// What the card is set in.
pub(crate) const TITLE: TextStyle = TextStyle { size: 22.0, bold: true, grey: false };
pub(crate) const LARGE: TextStyle = TextStyle { size: 17.0, bold: true, grey: false };
pub(crate) const HEADING: TextStyle = TextStyle { size: 12.0, bold: true, grey: false };
pub(crate) const STRONG: TextStyle = TextStyle { size: 10.0, bold: true, grey: false };
/// Of the record, which is read in an office.
pub(crate) const BODY: TextStyle = TextStyle { size: 10.5, bold: false, grey: false };
pub(crate) const PLAIN: TextStyle = TextStyle { size: 9.0, bold: false, grey: false };
pub(crate) const QUIET: TextStyle = TextStyle { size: 8.5, bold: false, grey: true };

impl TextStyle {
    /// From one base line to the next, mm.
    pub(crate) fn leading(self) -> f64 {
        self.size * 1.22 / crate::text::POINTS
    }
}

/// Pages that are filled from the top down; a block that does not fit goes to the next one whole.
pub(crate) struct Pages<'a> {
    faces: &'a Faces<'a>,
    paper: Paper,
    done: Vec<Vec<DrawnMark>>,
    page: Vec<DrawnMark>,
    y: f64,
    /// How many columns, which one is being filled, where they begin, and the lowest end of any of them.
    columns: usize,
    column: usize,
    top: f64,
    lowest: f64,
}

/// Between two columns, mm.
const GUTTER: f64 = 6.0;

impl<'a> Pages<'a> {
    pub(crate) fn new(paper: Paper, faces: &'a Faces<'a>) -> Self {
        let (done, page) = (Vec::new(), Vec::new());
        Self { faces, paper, done, page, y: MARGIN, columns: 1, column: 0, top: MARGIN, lowest: MARGIN }
    }

    /// Of a column; between the margins where there is one.
    pub(crate) fn width(&self) -> f64 {
        let whole = self.paper.size_mm().0 - 2.0 * MARGIN;
        let columns = self.columns as f64;
        (whole - GUTTER * (columns - 1.0)) / columns
    }

    /// Goes on in so many columns, below everything there is.
    pub(crate) fn in_columns(&mut self, columns: usize) {
        let below = self.y.max(self.lowest);
        (self.columns, self.column, self.top, self.y, self.lowest) = (columns, 0, below, below, below);
    }

    /// Goes on in so many columns of equal length where that many blocks fit on this page.
    pub(crate) fn even_columns(&mut self, columns: usize, blocks: Vec<Block>) {
        let longest = |limit: usize| {
            blocks
                .chunks(limit)
                .map(|part| part.iter().map(|block| block.height).sum::<f64>())
                .fold(0.0, f64::max)
        };
        let each = blocks.len().div_ceil(columns).max(1);
        if self.top + longest(each) > self.bottom() {
            return blocks.into_iter().for_each(|block| self.block(block));
        }
        for (index, block) in blocks.into_iter().enumerate() {
            if index > 0 && index % each == 0 {
                self.next_column();
            }
            self.block(block);
        }
    }

    fn next_column(&mut self) {
        self.lowest = self.lowest.max(self.y);
        if self.column + 1 < self.columns {
            self.column += 1;
            self.y = self.top;
        } else {
            self.next_page();
        }
    }

    fn bottom(&self) -> f64 {
        self.paper.size_mm().1 - MARGIN - FOOT
    }

    fn next_page(&mut self) {
        self.done.push(std::mem::take(&mut self.page));
        (self.column, self.top, self.y, self.lowest) = (0, MARGIN, MARGIN, MARGIN);
    }

    /// A block that is kept together.
    pub(crate) fn block(&mut self, block: Block) {
        if self.y + block.height > self.bottom() && !self.page.is_empty() {
            self.next_column();
        }
        let top = self.y;
        let left = MARGIN + self.column as f64 * (self.width() + GUTTER);
        self.page.extend(block.marks.into_iter().map(|mark| mark.moved(left, top)));
        self.y += block.height;
        self.lowest = self.lowest.max(self.y);
    }

    /// A page of its own for marks that are placed already.
    pub(crate) fn whole_page(&mut self, marks: Vec<DrawnMark>) {
        if !self.page.is_empty() {
            self.next_page();
        }
        self.done.push(marks);
    }

    /// An empty block as wide as the page.
    pub(crate) fn begin(&self) -> Block {
        Block { marks: Vec::new(), height: 0.0 }
    }

    /// Text in a block, broken to a width.
    pub(crate) fn write(&self, block: &mut Block, style: TextStyle, x: f64, width: f64, text: &str) {
        for line in self.faces.broken(text, style.size, style.bold, width) {
            block.height += style.leading();
            block.marks.push(DrawnMark::Text {
                x,
                y: block.height - style.leading() * 0.24,
                size: style.size,
                bold: style.bold,
                grey: style.grey,
                text: line,
            });
        }
    }

    /// All pages, with a check rule and a number at the foot of each.
    pub(crate) fn finished(self, title: &str) -> Vec<Vec<DrawnMark>> {
        self.with_foot(title, true)
    }

    /// The same of a paper that nothing is drilled from.
    pub(crate) fn without_a_rule(self, title: &str) -> Vec<Vec<DrawnMark>> {
        self.with_foot(title, false)
    }

    fn with_foot(mut self, title: &str, rule: bool) -> Vec<Vec<DrawnMark>> {
        if !self.page.is_empty() {
            self.next_page();
        }
        let count = self.done.len();
        let (width, height) = self.paper.size_mm();
        for (index, page) in self.done.iter_mut().enumerate() {
            if rule {
                page.extend(check_rule(MARGIN, height - MARGIN));
            }
            let text = self.faces.known(&format!("{title}, page {} of {count}", index + 1));
            let wide = self.faces.width(&text, QUIET.size, false);
            page.push(DrawnMark::Text {
                x: width - MARGIN - wide,
                y: height - MARGIN,
                size: QUIET.size,
                bold: false,
                grey: true,
                text,
            });
        }
        self.done
    }
}

/// Length of the check rule, mm.
pub(crate) const CHECK: f64 = 100.0;

/// A rule of 100 mm and 4 in under it, to see whether the printer kept to one to one.
fn check_rule(x: f64, y: f64) -> Vec<DrawnMark> {
    let line = |from, to| DrawnMark::Line { from, to, width: 0.3 };
    let mut marks = vec![line((x, y - 4.0), (x + CHECK, y - 4.0))];
    for tenth in 0..=10 {
        let at = x + CHECK * f64::from(tenth) / 10.0;
        let tall = if tenth % 5 == 0 { 3.0 } else { 1.8 };
        marks.push(line((at, y - 4.0 - tall), (at, y - 4.0)));
    }
    for inch in 0..=3 {
        let at = x + f64::from(inch) * 25.4;
        marks.push(line((at, y - 4.0), (at, y - 2.0)));
    }
    marks.push(DrawnMark::Text {
        x,
        y,
        size: 7.5,
        bold: false,
        grey: true,
        text: "Check the print: top marks must measure 100 mm, bottom marks 3 in. If not, don't drill from this page".to_owned(),
    });
    marks
}

/// Marks that belong together, from their own top left corner.
#[derive(Clone, Debug)]
pub(crate) struct Block {
    pub(crate) marks: Vec<DrawnMark>,
    pub(crate) height: f64,
}

impl DrawnMark {
    fn moved(self, by: f64, down: f64) -> Self {
        match self {
            Self::Text { x, y, size, bold, grey, text } => {
                Self::Text { x: x + by, y: y + down, size, bold, grey, text }
            }
            Self::Line { from, to, width } => {
                Self::Line { from: (from.0 + by, from.1 + down), to: (to.0 + by, to.1 + down), width }
            }
            Self::Box { x, y, width, height } => Self::Box { x: x + by, y: y + down, width, height },
            Self::Circle { x, y, radius } => Self::Circle { x: x + by, y: y + down, radius },
        }
    }
}
