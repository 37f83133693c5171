//! Drawings at one to one, read back from what is written: sizes, places, check bars.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_core::measure::Length;
use derecho_core::parts::template::{Drawing, cope_wrap, drill_holes, panel_hole};
use proptest::prelude::*;

fn mm(value: f64) -> Length {
    Length::from_mm(value)
}

type Point = (f64, f64);

/// Ends of every LINE of a DXF file.
fn dxf_lines(text: &str) -> Vec<(Point, Point)> {
    let rows: Vec<&str> = text.lines().collect();
    let pairs: Vec<(i32, &str)> =
        rows.chunks(2).map(|pair| (pair[0].trim().parse().unwrap(), pair[1])).collect();
    let mut lines = Vec::new();
    for (index, pair) in pairs.iter().enumerate() {
        if *pair == (0, "LINE") {
            let group = |code: i32| -> f64 {
                pairs[index + 1..].iter().find(|(known, _)| *known == code).unwrap().1.parse().unwrap()
            };
            lines.push(((group(10), group(20)), (group(11), group(21))));
        }
    }
    lines
}

/// Points of every polyline of an SVG file, and its size in millimetres.
fn svg_lines(text: &str) -> (Vec<Vec<Point>>, Point) {
    let lines = text
        .split("<polyline points=\"")
        .skip(1)
        .map(|rest| {
            let points = rest.split('"').next().unwrap().split(' ');
            points
                .map(|point| {
                    let (x, y) = point.split_once(',').unwrap();
                    (x.parse().unwrap(), y.parse().unwrap())
                })
                .collect()
        })
        .collect();
    let size = |name: &str| -> f64 {
        let rest = text.split(&format!(" {name}=\"")).nth(1).unwrap();
        rest.split("mm\"").next().unwrap().parse().unwrap()
    };
    (lines, (size("width"), size("height")))
}

fn long(((x1, y1), (x2, y2)): &(Point, Point)) -> f64 {
    (x2 - x1).hypot(y2 - y1)
}

/// Both check bars are there, level, in both formats, and everything lies on the sheet.
fn sound(drawing: &Drawing) -> Result<(), TestCaseError> {
    let lines = dxf_lines(&drawing.dxf());
    for check in [50.0, 50.8] {
        prop_assert!(lines.iter().any(|line| (long(line) - check).abs() < 1e-3 && line.0.1 == line.1.1));
    }
    let (drawn, (width, height)) = svg_lines(&drawing.svg());
    for (x, y) in drawn.iter().flatten() {
        prop_assert!(
            (0.0..=width).contains(x) && (0.0..=height).contains(y),
            "{x} {y} on {width} × {height}"
        );
    }
    // One millimetre is one millimetre in both: the same lengths, line by line.
    let from_svg: Vec<f64> =
        drawn.iter().flat_map(|line| line.windows(2).map(|pair| long(&(pair[0], pair[1])))).collect();
    prop_assert_eq!(from_svg.len(), lines.len());
    for (svg, dxf) in from_svg.iter().zip(&lines) {
        prop_assert!((svg - long(dxf)).abs() < 1e-3);
    }
    Ok(())
}

proptest! {
    #[test]
    fn a_panels_hole_is_as_large_as_reported_and_round_at_its_corners(
        left in -400.0..300.0_f64, wide in 20.0..400.0_f64, low in 200.0..500.0_f64, tall in 20.0..400.0_f64,
        corner in 1.0..30.0_f64, mark in (-300.0..300.0_f64, 200.0..700.0_f64),
    ) {
        let hole = [[left, left + wide], [low, low + tall]];
        let drawing = panel_hole("hole", hole, mark, corner);
        sound(&drawing)?;
        let outline = &drawing.lines[0];
        prop_assert_eq!(outline.first(), outline.last());
        let reach = |pick: fn(&(f64, f64)) -> f64| {
            let all = outline.iter().map(pick);
            (all.clone().fold(f64::INFINITY, f64::min), all.fold(f64::NEG_INFINITY, f64::max))
        };
        // From the mark, and as wide and tall as it is.
        let (x, y) = (reach(|point| point.0), reach(|point| point.1));
        prop_assert!((x.0 - (left - mark.0)).abs() < 1e-9 && (x.1 - x.0 - wide).abs() < 1e-9);
        prop_assert!((y.0 - (low - mark.1)).abs() < 1e-9 && (y.1 - y.0 - tall).abs() < 1e-9);
        // Its area, by the shoelace: the rectangle less what the corners take, (4 − π)·r².
        let area: f64 = outline.windows(2).map(|pair| (pair[0].0 * pair[1].1 - pair[1].0 * pair[0].1) / 2.0).sum();
        let r = corner.min(wide / 2.0).min(tall / 2.0);
        let expected = wide * tall - (4.0 - std::f64::consts::PI) * r * r;
        prop_assert!((area - expected).abs() < 0.02 * r * r + 1e-6, "{area} {expected}");
    }

    #[test]
    fn a_wrap_is_as_long_as_the_stock_is_round(shell in 30.0..90.0_f64, share in 0.3..1.0_f64) {
        let stock = shell * share;
        let drawing = cope_wrap(mm(shell), mm(stock));
        sound(&drawing)?;
        let edge = &drawing.lines[0];
        let (first, last) = (edge[0], edge[edge.len() - 1]);
        prop_assert!((last.0 - first.0 - std::f64::consts::PI * stock).abs() < 1e-9);
        // Wrapped round, both ends of the edge meet.
        prop_assert!((last.1 - first.1).abs() < 1e-9);
    }

    #[test]
    fn holes_are_drilled_where_they_are(
        places in prop::collection::vec((-80.0..80.0_f64, -150.0..150.0_f64), 1..8), bolt in 8.0..24.0_f64,
    ) {
        let holes: Vec<(String, f64, f64)> =
            places.iter().enumerate().map(|(index, (out, up))| (format!("hole {index}"), *out, *up)).collect();
        let drawing = drill_holes("holes", &holes, mm(bolt));
        sound(&drawing)?;
        // The old hole at nought and each new one from it, all as wide as the bolt at least.
        prop_assert_eq!(drawing.circles.len(), places.len() + 1);
        for (out, up) in places {
            prop_assert!(drawing.circles.iter().any(|((x, y), _)| (x - out).abs() < 1e-9 && (y - up).abs() < 1e-9));
        }
        prop_assert!(drawing.circles.iter().all(|(_, radius)| *radius >= bolt / 2.0));
    }

    /// Whatever a part is called, the file stays a file: no name ends a tag or a line.
    #[test]
    fn no_name_breaks_the_file(name in "[\\PC\0\u{1}\u{8}\u{b}\u{1b}\n\u{85}\u{fffe}\u{ffff}]{0,24}") {
        let drawing = drill_holes(&name, &[(name.clone(), 10.0, 50.0)], mm(14.0));
        let dxf = drawing.dxf();
        prop_assert_eq!(dxf.lines().count() % 2, 0);
        prop_assert!(dxf.is_ascii() && dxf.ends_with("0\nEOF\n"));
        let svg = drawing.svg();
        // XML 1.0 takes none of these, not even escaped.
        let taken = |c: char| matches!(c, '\t' | '\n' | '\r' | '\u{20}'..='\u{d7ff}' | '\u{e000}'..='\u{fffd}' | '\u{10000}'..);
        prop_assert!(svg.chars().all(taken), "{svg:?}");
        let inside = svg.split("<text").skip(1).map(|rest| rest.split("</text>").next().unwrap());
        for text in inside {
            prop_assert!(!text.split_once('>').unwrap().1.contains('<'), "{text}");
        }
    }
}
