//! What stands on the card: the vehicle, what is set, parts, tools, what goes back, steps, drill templates.

use derecho_core::measure::Unit;
use derecho_core::parts::template::Drawing;
use derecho_job::bolt_up::{FastenerLine, StepLine, StepState, WorkResult};
use derecho_job::bracket::template::{chosen_brackets, holes};
use derecho_job::cautions::{Caution, CautionMessage, CautionText};
use derecho_job::message::Message;
use derecho_job::{Job, Results};
use derecho_words::{Spoken, in_own_words, say as in_words, title_of_holes};

use crate::Paper;
use crate::sheet::{Block, DrawnMark, HEADING, LARGE, MARGIN, PLAIN, Pages, QUIET, STRONG, TITLE, TextStyle};
use crate::text::Faces;

/// A box that a greasy finger hits, mm.
const TICK: f64 = 8.0;
/// Left of it the step's number.
const NUMBER: f64 = 8.0;
/// Blanks a person writes in.
const BLANK: f64 = 13.0;

/// Every page of the card.
pub(crate) fn pages(
    job: &Job,
    results: &Results,
    work: &WorkResult,
    paper: Paper,
    faces: &Faces<'_>,
) -> Vec<Vec<DrawnMark>> {
    let unit = job.rig.sheet_unit;
    let mut pages = Pages::new(paper, faces);
    head(&mut pages, job);
    what_is_set(&mut pages, job, results, unit);
    accepted(&mut pages, job, results, unit);
    cautions(&mut pages, results, work);
    parts_and_tools(&mut pages, work, unit);
    put_back(&mut pages, job);
    steps(&mut pages, work, unit);
    for drawing in chosen_brackets(job)
        .iter()
        .map(|bracket| holes(job, bracket, &title_of_holes(bracket)).said(in_own_words))
    {
        let marks = template(&drawing, faces);
        pages.whole_page(marks);
    }
    pages.finished(&job.title)
}

fn say(message: &Message, unit: Unit) -> String {
    in_words(message).in_unit(unit).to_owned()
}

const fn other(unit: Unit) -> Unit {
    match unit {
        Unit::Inches => Unit::Millimetres,
        Unit::Millimetres => Unit::Inches,
    }
}

pub(crate) fn heading(pages: &mut Pages<'_>, text: &str) {
    let mut block = pages.begin();
    block.height = 3.0;
    pages.write(&mut block, HEADING, 0.0, pages.width(), text);
    let y = block.height + 0.8;
    block.marks.push(DrawnMark::Line { from: (0.0, y), to: (pages.width(), y), width: 0.4 });
    block.height += 2.0;
    pages.block(block);
}

pub(crate) fn paragraph(pages: &mut Pages<'_>, style: TextStyle, text: &str) {
    let mut block = pages.begin();
    pages.write(&mut block, style, 0.0, pages.width(), text);
    pages.block(block);
}

/// The vehicle, and which of its axles.
pub(crate) fn axle_of(job: &Job) -> String {
    let end = job.rig.end.map(|end| match end {
        derecho_core::measure::squareness::AxleEnd::Front => "front axle",
        derecho_core::measure::squareness::AxleEnd::Rear => "rear axle",
    });
    let reported = [Some(job.rig.vehicle.as_str()), end].into_iter().flatten();
    reported.filter(|text| !text.trim().is_empty()).collect::<Vec<_>>().join(", ")
}

fn head(pages: &mut Pages<'_>, job: &Job) {
    paragraph(pages, TITLE, &job.title);
    paragraph(pages, PLAIN, &axle_of(job));
    paragraph(
        pages,
        QUIET,
        "Left and right are as seen from the driver's seat. Get torques from the part's instructions only.",
    );
}

fn what_is_set(pages: &mut Pages<'_>, job: &Job, results: &Results, unit: Unit) {
    let correction = results.bar.as_ref().and_then(|bar| bar.correction.as_ref());
    let mut lines: Vec<Message> = Vec::new();
    if let Some(correction) = correction {
        lines.extend(correction.plan_says.iter().cloned());
        lines.push(correction.says.clone());
        let setting = correction.setting.as_ref();
        let ordered = correction.set.is_none() && !correction.decide_first && !correction.estimated;
        let setting = setting.filter(|_| ordered);
        lines.extend(setting.and_then(|setting| setting.turns_say.clone()));
        lines.extend(correction.readings_say.iter().cloned());
    }
    let sway = results.stages.iter().find(|stage| stage.stage == derecho_job::cautions::Stage::Sway);
    lines.extend(sway.filter(|_| job.sway.link.is_some()).map(|stage| stage.headline.clone()));
    if lines.is_empty() {
        return;
    }
    heading(pages, "Set");
    for says in lines {
        paragraph(pages, LARGE, &say(&says, unit));
        if say(&says, unit) != say(&says, other(unit)) {
            paragraph(pages, QUIET, &say(&says, other(unit)));
        }
    }
}

/// What the job is closed over, safety first: what it is, why, by whom and when.
fn accepted(pages: &mut Pages<'_>, job: &Job, results: &Results, unit: Unit) {
    let accepted = derecho_job::record::accepted(job, results);
    if accepted.is_empty() {
        return;
    }
    heading(pages, "Left open, and accepted");
    for line in accepted {
        paragraph(pages, STRONG, &say(&line, unit));
    }
}

/// Nothing about welding and drilling where nobody welds or drills.
fn cautions(pages: &mut Pages<'_>, results: &Results, work: &WorkResult) {
    let arcs = work.steps.iter().any(|step| step.key == "battery/off");
    let makes = arcs || !work.drills.is_empty();
    let concerns = |caution: &Caution| {
        let text = caution.says.0.facts::<CautionMessage>().map(|says| says.text);
        text != Some(CautionText::WeldingAndDrilling) || makes
    };
    let of_the_work = derecho_job::cautions::Stage::BoltUp;
    heading(pages, "Warning");
    let told = results.cautions.iter().filter(|caution| caution.stage == of_the_work && concerns(caution));
    for caution in told {
        paragraph(pages, PLAIN, &caution.says.inches());
    }
}

/// A box with a line of text beside it.
fn ticked(pages: &Pages<'_>, name: &str, says: &str, there: bool) -> Block {
    let mut block = pages.begin();
    block.height = 0.6;
    let small = TICK * 0.62;
    pages.write(&mut block, STRONG, small + 3.0, pages.width() - small - 3.0, name);
    if !says.is_empty() {
        pages.write(&mut block, QUIET, small + 3.0, pages.width() - small - 3.0, says);
    }
    block.height = block.height.max(small + 1.0);
    block.marks.push(DrawnMark::Box { x: 0.0, y: 0.8, width: small, height: small });
    if there {
        cross(&mut block, 0.0, 0.8, small);
    }
    block.height += 0.8;
    block
}

/// What is ticked already.
fn cross(block: &mut Block, x: f64, y: f64, side: f64) {
    let (a, b) = (side * 0.15, side * 0.85);
    let line = |from, to| DrawnMark::Line { from, to, width: 0.6 };
    block.marks.push(line((x + a, y + a), (x + b, y + b)));
    block.marks.push(line((x + a, y + b), (x + b, y + a)));
}

fn parts_and_tools(pages: &mut Pages<'_>, work: &WorkResult, unit: Unit) {
    let section =
        |pages: &mut Pages<'_>, title: &str, columns: usize, of: &dyn Fn(&Pages<'_>) -> Vec<Block>| {
            pages.in_columns(1);
            heading(pages, title);
            pages.in_columns(columns);
            let blocks = of(pages);
            pages.even_columns(columns, blocks);
            pages.in_columns(1);
        };
    if !work.parts.is_empty() {
        section(pages, "Parts", 2, &|pages| {
            work.parts
                .iter()
                .map(|part| ticked(pages, &part.name.inches(), &say(&part.where_says, unit), false))
                .collect()
        });
    }
    if !work.tools.is_empty() {
        section(pages, "Tools", 3, &|pages| {
            work.tools.iter().map(|tool| ticked(pages, &tool.name.inches(), "", tool.there)).collect()
        });
    }
}

fn put_back(pages: &mut Pages<'_>, job: &Job) {
    heading(pages, "Taken off: put it back");
    pages.in_columns(2);
    let known = job.bolt_up.taken_off.iter();
    let mut blocks: Vec<Block> =
        known.map(|taken| ticked(pages, &taken.name, &taken.stays_off, taken.back.is_some())).collect();
    for _ in 0..4 {
        let mut block = pages.begin();
        let small = TICK * 0.62;
        block.marks.push(DrawnMark::Box { x: 0.0, y: 1.0, width: small, height: small });
        let y = 1.0 + small;
        block.marks.push(DrawnMark::Line { from: (small + 3.0, y), to: (pages.width(), y), width: 0.2 });
        block.height = small + 3.0;
        blocks.push(block);
    }
    pages.even_columns(2, blocks);
    pages.in_columns(1);
}

fn steps(pages: &mut Pages<'_>, work: &WorkResult, unit: Unit) {
    if work.steps.is_empty() {
        return;
    }
    pages.in_columns(1);
    heading(pages, "Steps, in this order");
    pages.in_columns(2);
    // A caution stands beside the first step it belongs to; those after it are read on the same page.
    let mut reported: Vec<String> = Vec::new();
    for (index, step) in work.steps.iter().enumerate() {
        let lines: Vec<&FastenerLine> = step
            .tightens
            .iter()
            .filter_map(|key| work.fasteners.iter().find(|line| line.key == *key))
            .collect();
        let caution = step.caution.as_ref().map(|caution| say(&caution.0, unit));
        let caution = caution.filter(|caution| !reported.contains(caution));
        let block = step_block(pages, index + 1, step, &lines, unit, caution.as_deref());
        reported.extend(caution);
        pages.block(block);
    }
    pages.in_columns(1);
}

fn step_block(
    pages: &Pages<'_>,
    number: usize,
    step: &StepLine,
    fasteners: &[&FastenerLine],
    unit: Unit,
    caution: Option<&str>,
) -> Block {
    let mut block = pages.begin();
    let left = NUMBER + TICK + 3.0;
    let width = pages.width() - left;
    block.height = 1.0;
    pages.write(&mut block, STRONG, left, width, &say(&step.does, unit));
    let number = number.to_string();
    block.marks.push(DrawnMark::Text { x: 0.0, y: 6.4, size: 13.0, bold: true, grey: false, text: number });
    if step.stands.is_some() {
        pages.write(&mut block, QUIET, left, width, &say(&step.stands_says.0, unit));
    }
    // What is tightened says its condition already.
    if let Some(how) = step.how.as_ref().filter(|_| fasteners.is_empty()) {
        pages.write(&mut block, PLAIN, left, width, &say(how, unit));
    }
    if let Some(caution) = caution {
        pages.write(&mut block, STRONG, left, width, &format!("Warning: {caution}"));
    }
    for mind in step.minds.iter().filter(|_| step.state == StepState::Stopped) {
        pages.write(&mut block, STRONG, left, width, &format!("Stop: {}", &say(mind, unit)));
    }
    for line in fasteners {
        let count =
            line.count.filter(|count| *count > 1).map_or_else(String::new, |count| format!(" ({count})"));
        let what = Some(line.what.inches()).filter(|what| !what.is_empty());
        let what = what.map_or_else(String::new, |what| format!(", {what}"));
        pages.write(&mut block, PLAIN, left, width, &format!("{}{count}{what}", line.name.inches()));
        pages.write(&mut block, PLAIN, left, width, &say(&line.torque_says, unit));
        if let Some(tight) = &line.tight_says {
            pages.write(&mut block, PLAIN, left, width, &say(tight, unit));
        }
        blanks(&mut block, left);
    }
    let (x, y) = (NUMBER, 1.2);
    block.marks.push(DrawnMark::Box { x, y, width: TICK, height: TICK });
    match step.state {
        StepState::Done | StepState::Changed => cross(&mut block, x, y, TICK),
        StepState::Struck => {
            let line = DrawnMark::Line { from: (x, y + TICK), to: (x + TICK, y), width: 0.6 };
            block.marks.push(line);
        }
        StepState::Waits | StepState::Ready | StepState::Stopped => {}
    }
    block.height = block.height.max(TICK + 2.0) + 1.6;
    block
}

/// Blanks for what the wrench said, and who held it.
fn blanks(block: &mut Block, left: f64) {
    let y = block.height + 6.0;
    for (x, name, wide) in [(left, "torqued to", 17.0), (left + 33.0, "tool", 8.0), (left + 55.5, "by", 5.0)]
    {
        block.marks.push(DrawnMark::Text {
            x,
            y,
            size: QUIET.size,
            bold: false,
            grey: true,
            text: name.to_owned(),
        });
        let from = x + wide;
        block.marks.push(DrawnMark::Line { from: (from, y + 0.6), to: (from + BLANK, y + 0.6), width: 0.25 });
    }
    block.height = y + 1.5;
}

/// A drawing at one to one on a page of its own, its y upward turned down.
fn template(drawing: &Drawing, faces: &Faces<'_>) -> Vec<DrawnMark> {
    let points = drawing.lines.iter().flatten().copied();
    let circles = drawing.circles.iter().flat_map(|((x, y), r)| [(x - r, y - r), (x + r, y + r)]);
    let (mut left, mut top) = (f64::MAX, f64::MIN);
    for (x, y) in points.chain(circles) {
        left = left.min(x);
        top = top.max(y);
    }
    let at = |(x, y): (f64, f64)| (x - left + MARGIN + 4.0, top - y + MARGIN + 10.0);
    let mut marks = Vec::new();
    for line in &drawing.lines {
        for pair in line.windows(2) {
            marks.push(DrawnMark::Line { from: at(pair[0]), to: at(pair[1]), width: 0.25 });
        }
    }
    for (middle, radius) in &drawing.circles {
        let (x, y) = at(*middle);
        marks.push(DrawnMark::Circle { x, y, radius: *radius });
    }
    for (place, words) in &drawing.words {
        let (x, y) = at(*place);
        marks.push(DrawnMark::Text { x, y, size: 11.0, bold: false, grey: false, text: faces.known(words) });
    }
    marks
}
