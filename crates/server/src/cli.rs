//! The command line. Exit codes: 0 done, 1 could not, 2 wrong words or a bad file.

use crate::sentences;
use derecho_words::{English, current_english, in_english, in_own_words};
use std::io::{Read, Write};
use std::net::SocketAddr;
use std::path::{Path, PathBuf};
use std::process::ExitCode;

use clap::{CommandFactory as _, Parser, Subcommand, ValueEnum};
use derecho_card::{Paper, card};
use derecho_core::measure::Unit;
use derecho_core::measure::print::{Style, written_nanometres};
use derecho_core::measure::tape::{Kind, parse};
use derecho_job::Job;
use derecho_job::document::schema::job_schema;
use derecho_job::document::schema_table::job_fields;
use derecho_practice::technician::Technician;
use derecho_practice::trial::FurtherReadings;
use derecho_results::everything;
use derecho_results::json::{Layout, ToJson};
use derecho_store::safekeeping::{self, restore};
use derecho_store::{DATABASE_FILE, Prepared, Store};
use jiff::Timestamp;
use rayon::iter::Either;
use rayon::prelude::*;
use serde_json::json;
use tracing_subscriber::filter::{LevelFilter, Targets};
use tracing_subscriber::layer::SubscriberExt as _;
use tracing_subscriber::util::SubscriberInitExt as _;

use crate::api::jobs::new_id;
use crate::api::shop;
use crate::api::tape::ReadBack;
use crate::calendar::{calendar, due};
use crate::cards::{of_today, ready};
use crate::instruments::{self, Instruments};
use crate::parse::{ParseFault, read_job};
use crate::records::Records;
use crate::serve::{Settings, launch};
use crate::trial;

/// Centers solid axles and fixes the track bar (Panhard rod) angle after a lift or drop.
#[derive(Debug, Parser)]
#[command(name = "derecho", version)]
struct Arguments {
    #[command(subcommand)]
    command: Command,
}

#[derive(Debug, Subcommand)]
enum Command {
    /// Serve the application to a browser on this machine.
    Serve {
        /// Add the sample jobs if there are no jobs yet.
        #[arg(long)]
        demo: bool,
        /// Where jobs are kept.
        #[arg(long, value_name = "DIR")]
        data: Option<PathBuf>,
        /// Address to listen on.
        #[arg(long, value_name = "ADDR", default_value = "127.0.0.1:7317")]
        listen: SocketAddr,
    },
    /// Compute a job file and print every result as JSON.
    Solve {
        /// A job file, or - for standard input.
        file: PathBuf,
        #[command(flatten)]
        words: WordsOf,
    },
    /// Read a tape measurement and print it back.
    Tape {
        /// As typed, such as "24 13/16".
        #[arg(allow_hyphen_values = true)]
        text: String,
        /// The unit of a bare number.
        #[arg(long, value_enum, default_value = "in")]
        unit: UnitWord,
        /// Print one JSON object.
        #[arg(long)]
        json: bool,
        /// Allow a minus sign.
        #[arg(long)]
        signed: bool,
        /// Print inches to this part of an inch.
        #[arg(long, value_name = "PARTS", value_parser = ["16", "32"])]
        fraction: Option<String>,
    },
    /// Print the JSON Schema of job files.
    Schema {
        /// Print a page of tables instead, one for each part, for people.
        #[arg(long)]
        fields: bool,
    },
    /// Print the OpenAPI document of the HTTP interface.
    Openapi,
    /// Write a stored job as a job file.
    Export {
        /// The job's id; without one every job's id and title are listed.
        id: Option<String>,
        /// The file to write, or - for standard output.
        #[arg(long, short, value_name = "FILE", default_value = "-")]
        output: PathBuf,
        /// Where jobs are kept.
        #[arg(long, value_name = "DIR")]
        data: Option<PathBuf>,
    },
    /// Back up all data to one file; the server may be running.
    Backup {
        /// The file to write; it must not exist yet.
        file: PathBuf,
        /// Where jobs are kept.
        #[arg(long, value_name = "DIR")]
        data: Option<PathBuf>,
    },
    /// Check all data, or a backup of it, and list everything that is damaged.
    Check {
        /// A backup; the data folder itself if left out.
        file: Option<PathBuf>,
        /// Where jobs are kept.
        #[arg(long, value_name = "DIR")]
        data: Option<PathBuf>,
    },
    /// Restore a backup; the data that was there is kept next to it.
    Restore {
        /// The backup.
        file: PathBuf,
        /// Where jobs are kept.
        #[arg(long, value_name = "DIR")]
        data: Option<PathBuf>,
    },
    /// Write the job card as a PDF.
    Card {
        /// A job file, or the id of a stored job.
        job: PathBuf,
        /// The file to write, or - for standard output.
        #[arg(long, short, value_name = "FILE")]
        output: PathBuf,
        /// Paper size; by the job's units if left out.
        #[arg(long, value_enum)]
        paper: Option<PaperWord>,
        /// Where jobs are kept.
        #[arg(long, value_name = "DIR")]
        data: Option<PathBuf>,
        #[command(flatten)]
        words: WordsOf,
    },
    /// Write the record of a closed job as a PDF: one page for the customer.
    Record {
        /// A job file, or the id of a stored job.
        job: PathBuf,
        /// The file to write, or - for standard output.
        #[arg(long, short, value_name = "FILE")]
        output: PathBuf,
        /// Paper size; by the job's units if left out.
        #[arg(long, value_enum)]
        paper: Option<PaperWord>,
        /// Where jobs are kept.
        #[arg(long, value_name = "DIR")]
        data: Option<PathBuf>,
        #[command(flatten)]
        words: WordsOf,
    },
    /// List what is due after the work on all jobs, soonest first.
    Reminders {
        /// Write them as a calendar file instead.
        #[arg(long, value_name = "FILE")]
        calendar: Option<PathBuf>,
        /// Where jobs are kept.
        #[arg(long, value_name = "DIR")]
        data: Option<PathBuf>,
        #[command(flatten)]
        words: WordsOf,
    },
    /// Write the log over all jobs as CSV.
    Log {
        /// The file to write, or - for standard output.
        #[arg(long, short, value_name = "FILE", default_value = "-")]
        output: PathBuf,
        /// Where jobs are kept.
        #[arg(long, value_name = "DIR")]
        data: Option<PathBuf>,
        #[command(flatten)]
        words: WordsOf,
    },
    /// Write all jobs into one zip of job files; `derecho import` reads it.
    Pack {
        /// The file to write.
        file: PathBuf,
        /// Where jobs are kept.
        #[arg(long, value_name = "DIR")]
        data: Option<PathBuf>,
    },
    /// List removed jobs.
    Removed {
        /// Where jobs are kept.
        #[arg(long, value_name = "DIR")]
        data: Option<PathBuf>,
    },
    /// Restore a removed job.
    BringBack {
        /// The job's id, as `derecho removed` lists it.
        id: String,
        /// Where jobs are kept.
        #[arg(long, value_name = "DIR")]
        data: Option<PathBuf>,
    },
    /// Shop instruments: list them, watch them, simulate them.
    Instruments {
        #[command(subcommand)]
        what: Instruments,
    },
    /// For developers: list every sentence the program says, by screen, as found in sample jobs and random changes to them.
    Sentences {
        /// Number of changed jobs.
        #[arg(long, value_name = "N", default_value_t = 400)]
        jobs: usize,
        /// Seed: a different one changes them differently.
        #[arg(long, value_name = "S", default_value_t = 1)]
        seed: u64,
    },
    /// Run practice vehicles through the whole job, following the answers exactly, and count the results.
    Trial {
        /// Number of vehicles.
        #[arg(long, value_name = "N", default_value_t = 1000, value_parser = clap::value_parser!(u32).range(1..=1_000_000))]
        vehicles: u32,
        /// Seed: a different one draws different vehicles.
        #[arg(long, value_name = "S", default_value_t = 1)]
        seed: u64,
        /// How carefully they are measured.
        #[arg(long, value_enum, default_value = "careful")]
        hands: HandsWord,
        /// Follow the rule of thumb instead of Derecho's answer.
        #[arg(long, conflicts_with = "faults")]
        rule_of_thumb: bool,
        /// Vehicles with something wrong: count how often the cause is found.
        #[arg(long)]
        faults: bool,
        /// What a careful mechanic measures next when an answer is not conclusive.
        #[arg(long, value_enum, default_value = "advised")]
        further: FurtherWord,
        /// Print one JSON object.
        #[arg(long)]
        json: bool,
    },
    /// Store job files as new jobs.
    Import {
        /// Job files, zips of them, or - for standard input.
        #[arg(required = true)]
        files: Vec<PathBuf>,
        /// Where jobs are kept.
        #[arg(long, value_name = "DIR")]
        data: Option<PathBuf>,
    },
}

const fn technician(hands: HandsWord) -> Technician {
    match hands {
        HandsWord::Careful => Technician::Careful,
        HandsWord::Hurried => Technician::Hurried,
    }
}

/// Whose words are written.
#[derive(Debug, clap::Args)]
struct WordsOf {
    /// Whose English: us, uk, au or ca.
    #[arg(long, value_name = "WHOSE", default_value = "us")]
    english: English,
}

#[derive(Clone, Copy, Debug, ValueEnum)]
enum PaperWord {
    A4,
    Letter,
}

#[derive(Clone, Copy, Debug, ValueEnum)]
enum FurtherWord {
    /// What Derecho says to measure next.
    Advised,
    /// One more repeat, on one side and then the other.
    Blindly,
    /// Nothing.
    Never,
}

#[derive(Clone, Copy, Debug, ValueEnum)]
enum HandsWord {
    Careful,
    Hurried,
}

#[derive(Clone, Copy, Debug, ValueEnum)]
enum UnitWord {
    In,
    Mm,
}

impl From<UnitWord> for Unit {
    fn from(word: UnitWord) -> Self {
        match word {
            UnitWord::In => Self::Inches,
            UnitWord::Mm => Self::Millimetres,
        }
    }
}

/// A command that did not work: what to say, and the exit code.
struct Failure {
    says: String,
    code: u8,
}

impl Failure {
    fn could_not(cause: impl std::fmt::Display) -> Self {
        Self { says: cause.to_string(), code: 1 }
    }

    fn bad(cause: impl std::fmt::Display) -> Self {
        Self { says: cause.to_string(), code: 2 }
    }
}

/// The texts of the command line's own help.
#[must_use]
pub fn help() -> Vec<String> {
    fn of(command: &clap::Command, found: &mut Vec<String>) {
        let texts = command.get_about().into_iter().chain(command.get_long_about());
        found.extend(texts.map(ToString::to_string));
        found.extend(command.get_arguments().filter_map(|argument| Some(argument.get_help()?.to_string())));
        command.get_subcommands().for_each(|inner| of(inner, found));
    }
    let mut found = Vec::new();
    of(&Arguments::command(), &mut found);
    found
}

/// Runs the program on the arguments it was started with.
#[must_use]
pub fn run() -> ExitCode {
    let arguments = Arguments::parse();
    match execute(arguments.command) {
        Ok(()) => ExitCode::SUCCESS,
        Err(failure) => {
            let _ = writeln!(std::io::stderr(), "derecho: {}", failure.says);
            ExitCode::from(failure.code)
        }
    }
}

/// The whole bay as one zip.
fn pack(file: &Path, store: &Store) -> Result<(), Failure> {
    let left_out = if file == Path::new("-") {
        shop::shop_zip(store, std::io::stdout().lock()).map_err(Failure::could_not)?.1
    } else {
        let to = private_file(file).map_err(|error| not_written(file, &error))?;
        let written = shop::shop_zip(store, std::io::BufWriter::new(to));
        let (mut to, left_out) = written.map_err(Failure::could_not)?;
        to.flush().map_err(|error| not_written(file, &error))?;
        left_out
    };
    all_read(&left_out)
}

/// A copy of a bay in the place of the bay.
fn put_in_place(file: &Path, directory: &Path) -> Result<(), Failure> {
    let aside = restore(file, directory).map_err(Failure::could_not)?;
    let kept =
        aside.map_or_else(String::new, |aside| format!(" The old data is kept as {}.", aside.display()));
    print(&format!("Restored {}.{kept}", file.display()))
}

fn execute(command: Command) -> Result<(), Failure> {
    match command {
        Command::Serve { demo, data, listen } => serve(Settings::new(directory(data)?, demo), listen),
        Command::Solve { file, words } => {
            in_english(words.english, || print_reported(&everything(&load(&file)?)))
        }
        Command::Tape { text, unit, json, signed, fraction } => {
            tape(&text, unit.into(), json, signed, fraction.as_deref())
        }
        Command::Schema { fields: false } => print_json(&job_schema()),
        Command::Schema { fields: true } => print(job_fields().trim_end()),
        Command::Openapi => print_json(&crate::app::openapi()),
        Command::Export { id, output, data } => export(id.as_deref(), &output, data),
        Command::Instruments { what } => {
            let runtime = tokio::runtime::Builder::new_current_thread().enable_all().build();
            runtime.map_err(Failure::could_not)?.block_on(instruments::run(what)).map_err(Failure::could_not)
        }
        Command::Trial { vehicles, seed, hands, faults: true, json, .. } => {
            let reported = trial::run_faults(vehicles as usize, seed, technician(hands));
            if json { print_json(&reported) } else { print(&trial::faults_table(&reported)) }
        }
        Command::Trial { vehicles, seed, hands, rule_of_thumb, further, json, .. } => {
            let settings = derecho_practice::trial::TrialSettings {
                vehicles: vehicles as usize,
                seed,
                technician: technician(hands),
                rule_of_thumb,
                further: match further {
                    FurtherWord::Advised => FurtherReadings::Advised,
                    FurtherWord::Blindly => FurtherReadings::Blindly,
                    FurtherWord::Never => FurtherReadings::Never,
                },
                threads: 1,
            };
            let reported = trial::run(settings);
            if json { print_json(&reported) } else { print(&trial::table(&reported)) }
        }
        Command::Sentences { jobs, seed } => {
            let mut lines: Vec<String> = sentences::by_form(sentences::all(help(), jobs, seed))
                .into_iter()
                .map(|one| format!("{}\t{}", one.screen, one.says))
                .collect();
            lines.sort();
            print(&lines.join("\n"))
        }
        Command::Import { files, data } => import(&files, data),
        Command::Card { job, output, paper, data, words } => {
            in_english(words.english, || card_of(&job, &output, paper, data))
        }
        Command::Record { job, output, paper, data, words } => {
            in_english(words.english, || record_of(&job, &output, paper, data))
        }
        Command::Reminders { calendar, data, words } => {
            in_english(words.english, || reminders(calendar, data))
        }
        Command::Log { output, data, words } => in_english(words.english, || {
            let store = bay(data)?;
            let lines = shop::lines(&Records::default(), &store, "", None).map_err(Failure::could_not)?;
            write_out(&output, &shop::log_csv(&lines).map_err(Failure::could_not)?)
        }),
        Command::Pack { file, data } => pack(&file, &bay(data)?),
        Command::Removed { data } => {
            let removed = bay(data)?.removed().map_err(Failure::could_not)?;
            removed.iter().try_for_each(|job| print(&format!("{}\t{}\t{}", job.id, job.saved_at, job.title)))
        }
        Command::BringBack { id, data } => {
            let reported =
                |error| Failure::could_not(format!("{id}: {error}. Run derecho removed for the list"));
            let stored = bay(data)?.bring_back(&id).map_err(reported)?;
            print(&format!("{} is back in the job list.", stored.job.title))
        }
        Command::Backup { file, data } => {
            let store = bay(data)?;
            store.backup(&file).map_err(Failure::could_not)?;
            print(&format!("Backup written to {}.", file.display()))
        }
        Command::Check { file, data } => check(file, data),
        Command::Restore { file, data } => put_in_place(&file, &directory(data)?),
    }
}

/// The bay that is there: only `serve` and `import` make one.
fn bay(data: Option<PathBuf>) -> Result<Store, Failure> {
    Store::open_existing(&directory(data)?).map_err(Failure::could_not)
}

fn directory(given: Option<PathBuf>) -> Result<PathBuf, Failure> {
    let home = || std::env::var_os("HOME").map(|home| PathBuf::from(home).join(".local/share"));
    given
        .or_else(|| {
            std::env::var_os("XDG_DATA_HOME")
                .map(PathBuf::from)
                .or_else(home)
                .map(|base| base.join("derecho"))
        })
        .ok_or_else(|| Failure::bad("say where jobs are stored, with --data DIR"))
}

fn print(text: &str) -> Result<(), Failure> {
    // A reader that has seen enough, such as head, closes the pipe: that is no failure.
    match writeln!(std::io::stdout(), "{text}") {
        Err(error) if error.kind() != std::io::ErrorKind::BrokenPipe => Err(Failure::could_not(error)),
        _ => Ok(()),
    }
}

fn print_json(value: &impl serde::Serialize) -> Result<(), Failure> {
    print(&serde_json::to_string_pretty(value).map_err(Failure::could_not)?)
}

fn print_reported(reported: &dyn ToJson) -> Result<(), Failure> {
    print(&String::from_utf8_lossy(&reported.json(Layout::Indented).map_err(Failure::could_not)?))
}

fn read(file: &Path) -> Result<Vec<u8>, Failure> {
    if file == Path::new("-") {
        let mut text = Vec::new();
        std::io::stdin()
            .read_to_end(&mut text)
            .map_err(|error| Failure::bad(format!("standard input: {error}")))?;
        return Ok(text);
    }
    std::fs::read(file).map_err(|error| Failure::bad(format!("{}: {error}", file.display())))
}

fn load(file: &Path) -> Result<Job, Failure> {
    let name = if file == Path::new("-") { "standard input".to_owned() } else { file.display().to_string() };
    read_job(&read(file)?).map_err(|refusal| {
        Failure::bad(match refusal {
            ParseFault::NotJson { message, line, column } => {
                format!("{name}:{line}:{column}: this is not JSON: {message}")
            }
            ParseFault::Faults(faults) => {
                let lines: Vec<String> = faults
                    .iter()
                    .map(|fault| {
                        let place = match (fault.start, fault.end) {
                            (Some(start), Some(end)) => format!(" (characters {} to {end})", start + 1),
                            _ => String::new(),
                        };
                        let pointer = if fault.pointer.is_empty() { "/" } else { &fault.pointer };
                        format!("{name}: at {pointer}{place}: {}", in_own_words(&fault.message))
                    })
                    .collect();
                lines.join("\nderecho: ")
            }
        })
    })
}

fn tape(text: &str, unit: Unit, as_json: bool, signed: bool, fraction: Option<&str>) -> Result<(), Failure> {
    let kind = if signed { Kind::Signed } else { Kind::Distance };
    let number = parse(text, unit, kind).map_err(|error| {
        let marks: String =
            (0..error.end.max(error.start + 1)).map(|at| if at < error.start { ' ' } else { '^' }).collect();
        Failure::bad(format!("{error}\n  {text}\n  {marks}"))
    })?;
    let back = ReadBack::of(number);
    let nanometres = number.nanometres();
    let inches = match fraction {
        Some("16") => written_nanometres(nanometres, Style::Sixteenths),
        Some(_) => written_nanometres(nanometres, Style::ThirtySeconds),
        None => back.inches,
    };
    let says = match unit {
        Unit::Inches => &inches,
        Unit::Millimetres => &back.millimetres,
    };
    if !as_json {
        return print(&format!("{inches} = {}", back.millimetres));
    }
    print(
        &json!({
            "typed": text,
            "unit": unit,
            "mm": back.mm,
            "nanometres": nanometres,
            "text": says,
            "inches": inches,
            "millimetres": back.millimetres,
        })
        .to_string(),
    )
}

fn export(id: Option<&str>, output: &Path, data: Option<PathBuf>) -> Result<(), Failure> {
    let store = bay(data)?;
    let Some(id) = id else {
        let (jobs, _) = store.list("", u32::MAX, 0).map_err(Failure::could_not)?;
        return jobs.iter().try_for_each(|job| print(&format!("{}\t{}", job.id, job.title)));
    };
    let stored = store.get(id).map_err(|error| Failure::could_not(format!("{id}: {error}")))?;
    if output == Path::new("-") {
        return print_reported(&stored.job);
    }
    let mut text = stored.job.json(Layout::Indented).map_err(Failure::could_not)?;
    text.push(b'\n');
    write_out(output, &text)
}

/// A file for its owner alone, new or in the place of one that was there: names and vehicles of people are in it.
fn private_file(path: &Path) -> std::io::Result<std::fs::File> {
    let mut options = std::fs::File::options();
    options.write(true).create(true).truncate(true);
    #[cfg(unix)]
    std::os::unix::fs::OpenOptionsExt::mode(&mut options, 0o600);
    let file = options.open(path)?;
    #[cfg(unix)]
    if file.metadata()?.is_file() {
        file.set_permissions(std::os::unix::fs::PermissionsExt::from_mode(0o600))?;
    }
    Ok(file)
}

fn not_written(path: &Path, error: &std::io::Error) -> Failure {
    Failure::could_not(format!("{}: {error}", path.display()))
}

/// Writes bytes to a file, or to standard output for -.
fn write_out(output: &Path, bytes: &[u8]) -> Result<(), Failure> {
    if output == Path::new("-") {
        return std::io::stdout().write_all(bytes).map_err(Failure::could_not);
    }
    private_file(output)
        .and_then(|mut file| file.write_all(bytes))
        .map_err(|error| not_written(output, &error))
}

/// A job by its file where there is one, else by its id.
fn card_of(
    job: &Path,
    output: &Path,
    paper: Option<PaperWord>,
    data: Option<PathBuf>,
) -> Result<(), Failure> {
    let job = file_or_stored(job, data)?;
    let paper = paper_of(paper, &job);
    write_out(output, &card(&job, paper).map_err(Failure::could_not)?)
}

fn record_of(
    named: &Path,
    output: &Path,
    paper: Option<PaperWord>,
    data: Option<PathBuf>,
) -> Result<(), Failure> {
    let job = file_or_stored(named, data)?;
    let written = derecho_card::record(&job, paper_of(paper, &job)).map_err(Failure::could_not)?;
    let open =
        || Failure::could_not(format!("{}: not closed yet, so there is no record of it", named.display()));
    write_out(output, &written.ok_or_else(open)?)
}

/// A job by its file, or by its id in the store.
fn file_or_stored(job: &Path, data: Option<PathBuf>) -> Result<Job, Failure> {
    if job == Path::new("-") || job.exists() {
        return load(job);
    }
    let id = job.to_string_lossy();
    let store = bay(data)?;
    let reported = |error| Failure::could_not(format!("{id}: no such file and no such job: {error}"));
    Ok(store.get(&id).map_err(reported)?.job)
}

fn paper_of(paper: Option<PaperWord>, job: &Job) -> Paper {
    match paper {
        Some(PaperWord::A4) => Paper::A4,
        Some(PaperWord::Letter) => Paper::Letter,
        None => Paper::usual(job.rig.sheet_unit),
    }
}

fn reminders(file: Option<PathBuf>, data: Option<PathBuf>) -> Result<(), Failure> {
    let store = bay(data)?;
    let (jobs, _) = store.list("", u32::MAX, 0).map_err(Failure::could_not)?;
    // What nothing is due of says so on its card; the others are solved, on every core.
    let may_be_due: Vec<String> = jobs
        .into_iter()
        .filter(|listed| of_today(listed).is_none_or(|card| !card.due.is_empty()))
        .map(|listed| listed.id)
        .collect();
    let english = current_english();
    let (of_each, left_out): (Vec<_>, Vec<_>) = may_be_due.into_par_iter().partition_map(|id| {
        store.get(&id).map_or(Either::Right(id), |stored| {
            Either::Left(in_english(english, || due(&stored.id, &stored.job, stored.saved_at)))
        })
    });
    let mut all: Vec<_> = of_each.into_iter().flatten().collect();
    all.sort_by_key(|due| due.day);
    match file {
        Some(file) => write_out(&file, calendar(&all).as_bytes())?,
        None => {
            all.iter().try_for_each(|due| print(&format!("{}\t{}\t{}", due.day, due.title, due.says)))?;
        }
    }
    all_read(&left_out)
}

/// Jobs that could not be read keep nobody from the others, and are named: nothing is left out unsaid.
fn all_read(left_out: &[String]) -> Result<(), Failure> {
    if left_out.is_empty() {
        return Ok(());
    }
    let jobs = left_out.join(", ");
    Err(Failure::could_not(format!(
        "everything else was written, but these jobs can't be read: {jobs}. Run derecho check for the reason"
    )))
}

fn check(file: Option<PathBuf>, data: Option<PathBuf>) -> Result<(), Failure> {
    let file = match file {
        Some(file) => file,
        None => directory(data)?.join(DATABASE_FILE),
    };
    let found = safekeeping::check(&file).map_err(Failure::could_not)?;
    if found.faults.is_empty() {
        return print(&format!("OK: {} jobs, {} revisions.", found.jobs, found.revisions));
    }
    let advice =
        "Restore a backup with derecho restore; keep the damaged file, parts of it may still be readable.";
    Err(Failure::could_not(format!("{}\nderecho: {advice}", found.faults.join("\nderecho: "))))
}

/// The jobs of a file made ready to be stored: one, or those of a zip.
fn ready_of(file: &Path) -> Result<Vec<Prepared>, Failure> {
    if file.extension().is_none_or(|ending| ending != "zip") {
        let ready = ready(load(file)?).map_err(Failure::could_not)?;
        return Ok(vec![Prepared::of(new_id(), &ready).map_err(Failure::could_not)?]);
    }
    let reported = |done: usize, of: usize| {
        if done.is_multiple_of(500) {
            let _ = writeln!(std::io::stderr(), "{done} of {of} checked");
        }
    };
    shop::ready_of_zip(&read(file)?, reported).map_err(|problem| {
        let lines = problem.errors.iter().map(|fault| format!("{}: {}", fault.pointer, fault.message));
        let reported: Vec<String> = [problem.detail.clone()].into_iter().chain(lines).collect();
        Failure::bad(format!("{}: {}", file.display(), reported.join("\nderecho: ")))
    })
}

fn import(files: &[PathBuf], data: Option<PathBuf>) -> Result<(), Failure> {
    // All are read before any is stored: a bad one among them stores none; and they are stored together or not at all.
    let ready: Vec<Prepared> = files
        .iter()
        .map(|file| ready_of(file))
        .collect::<Result<Vec<_>, _>>()?
        .into_iter()
        .flatten()
        .collect();
    let store = Store::open(&directory(data)?).map_err(Failure::could_not)?;
    store.create_all(&ready, Timestamp::now()).map_err(Failure::could_not)?;
    ready.iter().try_for_each(|job| print(&format!("{}\t{}", job.id(), job.title())))
}

fn serve(settings: Settings, listen: SocketAddr) -> Result<(), Failure> {
    // Levels by part of the program, RUST_LOG=warn,derecho_server=debug: no patterns, which half a build would be for.
    let wanted = std::env::var("RUST_LOG").ok().and_then(|text| text.parse::<Targets>().ok());
    tracing_subscriber::registry()
        .with(tracing_subscriber::fmt::layer().with_writer(std::io::stderr))
        .with(wanted.unwrap_or_else(|| Targets::new().with_default(LevelFilter::WARN)))
        .init();
    let runtime = tokio::runtime::Runtime::new().map_err(Failure::could_not)?;
    let started = |address| {
        let _ = writeln!(std::io::stdout(), "Derecho is open at http://{address}/");
    };
    runtime.block_on(launch(settings, listen, started, ended())).map_err(Failure::could_not)
}

/// Done when the program is asked to end.
async fn ended() {
    let interrupt = tokio::signal::ctrl_c();
    match tokio::signal::unix::signal(tokio::signal::unix::SignalKind::terminate()) {
        Ok(mut terminate) => {
            tokio::select! {
                _ = interrupt => {}
                _ = terminate.recv() => {}
            }
        }
        Err(_) => {
            let _ = interrupt.await;
        }
    }
}
