//! Drawings at one to one, to print or cut: a wrap for the cope, and holes from the old
//! hole's centre. As SVG in millimetres and as DXF (R12, millimetres), each with a bar to check
//! the scale by.

use crate::measure::typed;
use std::fmt::Write as _;

use crate::measure::Length;

/// A drawing in millimetres, x to the right, y up.
#[derive(Clone, Debug, Default, PartialEq)]
pub struct Drawing {
    /// Lines of two points or more.
    pub lines: Vec<Vec<(f64, f64)>>,
    /// Circles: middle and radius.
    pub circles: Vec<((f64, f64), f64)>,
    /// Words at a place, 4 mm high.
    pub words: Vec<((f64, f64), String)>,
}

/// Length of the check bar: 50 mm, and 2 in above it.
const CHECK: f64 = 50.0;
const CHECK_INCHES: f64 = 50.8;
const MARGIN: f64 = 10.0;
const LETTER: f64 = 4.0;

impl Drawing {
    /// The drawing with its words as `say` says them; what a person typed is marked in them, see [`typed`].
    #[must_use]
    pub fn said(mut self, say: impl Fn(&str) -> String) -> Self {
        for (_, words) in &mut self.words {
            *words = say(words);
        }
        self
    }

    fn cross(&mut self, (x, y): (f64, f64), arm: f64) {
        self.lines.push(vec![(x - arm, y), (x + arm, y)]);
        self.lines.push(vec![(x, y - arm), (x, y + arm)]);
    }

    fn extent(&self) -> ((f64, f64), (f64, f64)) {
        let circles = self.circles.iter().flat_map(|((x, y), r)| [(x - r, y - r), (x + r, y + r)]);
        let words = self.words.iter().flat_map(|((x, y), text)| {
            [(*x, *y - 1.0), (x + text.chars().count() as f64 * LETTER * 0.62, y + LETTER)]
        });
        let points = self.lines.iter().flatten().copied().chain(circles).chain(words);
        points.fold(((f64::MAX, f64::MAX), (f64::MIN, f64::MIN)), |(low, high), (x, y)| {
            ((low.0.min(x), low.1.min(y)), (high.0.max(x), high.1.max(y)))
        })
    }

    /// A bar of 50 mm and one of 2 in under the drawing.
    fn with_check_bar(mut self, title: &str) -> Self {
        let ((left, bottom), _) = self.extent();
        let y = bottom - 14.0;
        for (length, at, text) in
            [(CHECK, y, "50 mm: check this before you cut"), (CHECK_INCHES, y - 10.0, "2 in")]
        {
            self.lines.push(vec![(left, at), (left + length, at)]);
            for x in [left, left + length] {
                self.lines.push(vec![(x, at - 2.0), (x, at + 2.0)]);
            }
            self.words.push(((left + length + 3.0, at - 1.5), text.to_owned()));
        }
        self.words.push(((left, y - 20.0), title.to_owned()));
        self
    }

    /// As SVG whose size is given in millimetres.
    #[must_use]
    pub fn svg(&self) -> String {
        let ((left, bottom), (right, top)) = self.extent();
        let (width, height) = (right - left + 2.0 * MARGIN, top - bottom + 2.0 * MARGIN);
        // SVG counts y downward.
        let at = |x: f64, y: f64| format!("{:.4},{:.4}", x - left + MARGIN, top - y + MARGIN);
        let mut text = format!(
            "<svg xmlns=\"http://www.w3.org/2000/svg\" width=\"{width:.4}mm\" height=\"{height:.4}mm\" viewBox=\"0 0 {width:.4} {height:.4}\">\n<g fill=\"none\" stroke=\"black\" stroke-width=\"0.25\">\n"
        );
        for line in &self.lines {
            let points: Vec<String> = line.iter().map(|(x, y)| at(*x, *y)).collect();
            let _ = writeln!(text, "<polyline points=\"{}\"/>", points.join(" "));
        }
        for ((x, y), radius) in &self.circles {
            let (cx, cy) = (x - left + MARGIN, top - y + MARGIN);
            let _ = writeln!(text, "<circle cx=\"{cx:.4}\" cy=\"{cy:.4}\" r=\"{radius:.4}\"/>");
        }
        text.push_str("</g>\n<g font-family=\"sans-serif\" font-size=\"4\">\n");
        for ((x, y), words) in &self.words {
            let (tx, ty) = (x - left + MARGIN, top - y + MARGIN);
            let safe: String = words.chars().map(|c| if xml_takes(c) { c } else { '?' }).collect();
            let safe = safe.replace('&', "&amp;").replace('<', "&lt;");
            let _ = writeln!(text, "<text x=\"{tx:.4}\" y=\"{ty:.4}\">{safe}</text>");
        }
        text.push_str("</g>\n</svg>\n");
        text
    }

    /// As DXF R12: LINE, CIRCLE and TEXT entities, one unit a millimetre.
    #[must_use]
    pub fn dxf(&self) -> String {
        let mut text = String::from(
            "0\nSECTION\n2\nHEADER\n9\n$ACADVER\n1\nAC1009\n0\nENDSEC\n0\nSECTION\n2\nENTITIES\n",
        );
        for line in &self.lines {
            for pair in line.windows(2) {
                let ((x1, y1), (x2, y2)) = (pair[0], pair[1]);
                let _ = write!(
                    text,
                    "0\nLINE\n8\n0\n10\n{x1:.4}\n20\n{y1:.4}\n30\n0.0\n11\n{x2:.4}\n21\n{y2:.4}\n31\n0.0\n"
                );
            }
        }
        for ((x, y), radius) in &self.circles {
            let _ = write!(text, "0\nCIRCLE\n8\n0\n10\n{x:.4}\n20\n{y:.4}\n30\n0.0\n40\n{radius:.4}\n");
        }
        for ((x, y), words) in &self.words {
            // R12 knows no letters beyond ASCII.
            let plain: String =
                words.chars().map(|c| if c.is_ascii() && !c.is_control() { c } else { '?' }).collect();
            let _ =
                write!(text, "0\nTEXT\n8\n0\n10\n{x:.4}\n20\n{y:.4}\n30\n0.0\n40\n{LETTER}\n1\n{plain}\n");
        }
        text.push_str("0\nENDSEC\n0\nEOF\n");
        text
    }
}

/// Whether a letter may stand in XML 1.0 at all, escaped or not.
fn xml_takes(letter: char) -> bool {
    !letter.is_control() && !matches!(letter, '\u{FFFE}' | '\u{FFFF}')
}

/// A wrap for the cope of a stock on a shell: cut along the curve, wrapped round the stock
/// with the straight edge square to it.
#[must_use]
pub fn cope_wrap(shell: Length, stock: Length) -> Drawing {
    let edge = crate::bar::builder::cope_edge(shell, stock, 72);
    let round = std::f64::consts::PI * stock.to_mm();
    let deepest = edge.iter().map(|(_, behind)| *behind).fold(0.0, f64::max);
    let foot = -(deepest + 30.0);
    let mut drawing = Drawing::default();
    drawing.lines.push(edge.iter().map(|(x, behind)| (*x, -behind)).collect());
    drawing.lines.push(vec![(0.0, 0.0), (0.0, foot), (round, foot), (round, 0.0)]);
    for quarter in 1..4 {
        let x = round * f64::from(quarter) / 4.0;
        drawing.lines.push(vec![(x, foot), (x, foot + 5.0)]);
    }
    drawing.words.push(((4.0, foot + 8.0), "square edge, away from the shell".to_owned()));
    drawing.with_check_bar(&format!("Cope: stock {:.2} mm on shell {:.2} mm", stock.to_mm(), shell.to_mm()))
}

/// The hole a panel wants, corners rounded by `corner`, mm: least and most along both of its axes, drawn
/// from a mark that can be found on the vehicle.
#[must_use]
pub fn panel_hole(title: &str, hole: [[f64; 2]; 2], mark: (f64, f64), corner: f64) -> Drawing {
    let [[left, right], [bottom, top]] = hole;
    let round = corner.min((right - left) / 2.0).min((top - bottom) / 2.0);
    let corners = [
        ((right - round, top - round), 0.0_f64),
        ((left + round, top - round), 90.0),
        ((left + round, bottom + round), 180.0),
        ((right - round, bottom + round), 270.0),
    ];
    // A quarter turn at each corner in steps of 10 degrees.
    let mut outline: Vec<(f64, f64)> = corners
        .into_iter()
        .flat_map(|((x, y), from)| {
            (0..=9).map(move |step| {
                let (sin, cos) = (from + 10.0 * f64::from(step)).to_radians().sin_cos();
                (x + round * cos - mark.0, y + round * sin - mark.1)
            })
        })
        .collect();
    outline.extend(outline.first().copied());
    let mut drawing = Drawing { lines: vec![outline], ..Drawing::default() };
    drawing.cross((0.0, 0.0), 8.0);
    drawing.words.push(((9.0, 3.0), "centerline of the bar, left side".to_owned()));
    drawing.with_check_bar(title)
}

/// Holes of a bracket from the middle of the old one: each by its place (out, up) and the
/// bolt's diameter.
#[must_use]
pub fn drill_holes(title: &str, holes: &[(String, f64, f64)], bolt: Length) -> Drawing {
    let mut drawing = Drawing::default();
    drawing.cross((0.0, 0.0), 9.0);
    drawing.circles.push(((0.0, 0.0), bolt.to_mm() / 2.0));
    drawing.words.push(((bolt.to_mm() / 2.0 + 4.0, 1.0), "old hole".to_owned()));
    for (name, out, up) in holes {
        drawing.cross((*out, *up), 6.0);
        drawing.circles.push(((*out, *up), bolt.to_mm() / 2.0));
        drawing.words.push(((out + bolt.to_mm() / 2.0 + 4.0, up + 1.0), typed::mark(name)));
    }
    drawing.with_check_bar(title)
}
