//! Pages of marks written as a PDF: static faces, the same bytes for the same marks.

use krilla::Document;
use krilla::color::luma;
use krilla::geom::{Path, PathBuilder, Point, Rect, Transform};
use krilla::metadata::{DateTime, Metadata};
use krilla::page::PageSettings;
use krilla::paint::{Fill, Stroke};
use krilla::surface::Surface;
use krilla::text::{Font, GlyphId, KrillaGlyph};

use crate::sheet::DrawnMark;
use crate::text::{BOLD, Faces, POINTS, Placed, REGULAR};
use crate::{CardError, Paper};

/// How far a cubic's handles stand out for a quarter of a circle.
const QUARTER: f64 = 0.552_284_749_8;

pub(crate) fn write(
    title: &str,
    paper: Paper,
    pages: &[Vec<DrawnMark>],
    faces: &Faces<'_>,
) -> Result<Vec<u8>, CardError> {
    let font = |bytes: &'static [u8]| Font::new(bytes.into(), 0).ok_or(CardError::Face);
    let (regular, bold) = (font(REGULAR)?, font(BOLD)?);
    let mut document = Document::new();
    // Neither the hour nor chance: the same job gives the same file.
    document.set_metadata(
        Metadata::new()
            .title(title.to_owned())
            .language("en".to_owned())
            .creation_date(DateTime::new(2026))
            .document_id("derecho-card".to_owned()),
    );
    let (width, height) = paper.size_mm();
    let points = |mm: f64| (mm * POINTS) as f32;
    for marks in pages {
        let settings = PageSettings::from_wh(points(width), points(height))
            .ok_or_else(|| CardError::Writing("a page without size".to_owned()))?;
        let mut page = document.start_page_with(settings);
        let mut surface = page.surface();
        // Everything below is in millimetres; type is brought back to its points.
        let scale = POINTS as f32;
        surface.push_transform(&Transform::from_scale(scale, scale));
        for mark in marks {
            draw(&mut surface, mark, (&regular, &bold), faces);
        }
        surface.pop();
        surface.finish();
        page.finish();
    }
    document.finish().map_err(|error| CardError::Writing(format!("{error:?}")))
}

fn draw(surface: &mut Surface<'_>, mark: &DrawnMark, (regular, bold): (&Font, &Font), faces: &Faces<'_>) {
    match mark {
        DrawnMark::Text { x, y, size, bold: heavy, grey, text } => {
            surface.set_stroke(None);
            let ink = if *grey { luma::Color::new(80) } else { luma::Color::black() };
            surface.set_fill(Some(Fill { paint: ink.into(), ..Fill::default() }));
            let glyphs: Vec<KrillaGlyph> = faces.shaped(text, *heavy).iter().map(glyph).collect();
            let font = if *heavy { bold } else { regular };
            let at = Point::from_xy(*x as f32, *y as f32);
            surface.draw_glyphs(at, &glyphs, font.clone(), text, (size / POINTS) as f32, false);
        }
        DrawnMark::Line { from, to, width } => {
            let mut path = PathBuilder::new();
            path.move_to(from.0 as f32, from.1 as f32);
            path.line_to(to.0 as f32, to.1 as f32);
            stroke(surface, path.finish(), *width);
        }
        DrawnMark::Box { x, y, width, height } => {
            let mut path = PathBuilder::new();
            if let Some(rect) = Rect::from_xywh(*x as f32, *y as f32, *width as f32, *height as f32) {
                path.push_rect(rect);
            }
            stroke(surface, path.finish(), 0.5);
        }
        DrawnMark::Circle { x, y, radius } => stroke(surface, circle(*x, *y, *radius), 0.25),
    }
}

fn glyph(placed: &Placed) -> KrillaGlyph {
    KrillaGlyph::new(
        GlyphId::new(placed.glyph),
        placed.advance,
        placed.offset.0,
        placed.offset.1,
        0.0,
        placed.of.clone(),
        None,
    )
}

fn circle(x: f64, y: f64, radius: f64) -> Option<Path> {
    let mut path = PathBuilder::new();
    let point = |across: f64, down: f64| ((x + across * radius) as f32, (y + down * radius) as f32);
    let (start_x, start_y) = point(1.0, 0.0);
    path.move_to(start_x, start_y);
    let quarters = [(1.0, 0.0), (0.0, 1.0), (-1.0, 0.0), (0.0, -1.0), (1.0, 0.0)];
    for pair in quarters.windows(2) {
        let ((ax, ay), (bx, by)) = (pair[0], pair[1]);
        let (c1, c2) =
            (point(ax + bx * QUARTER, ay + by * QUARTER), point(bx + ax * QUARTER, by + ay * QUARTER));
        let end = point(bx, by);
        path.cubic_to(c1.0, c1.1, c2.0, c2.1, end.0, end.1);
    }
    path.close();
    path.finish()
}

fn stroke(surface: &mut Surface<'_>, path: Option<Path>, width: f64) {
    let Some(path) = path else { return };
    surface.set_fill(None);
    surface.set_stroke(Some(Stroke {
        paint: luma::Color::black().into(),
        width: width as f32,
        ..Stroke::default()
    }));
    surface.draw_path(&path);
}
