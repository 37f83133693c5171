//! The house as it is built: no import circle, of files or of folders at any depth, in any crate; the only files that make
//! sentences; how long functions are, where threads are started, what defaults say. Read from the sources themselves.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use std::collections::{BTreeMap, BTreeSet};
use std::path::{Path, PathBuf};

type Imports = BTreeMap<String, BTreeSet<String>>;

fn root() -> PathBuf {
    Path::new(env!("CARGO_MANIFEST_DIR")).join("../..").canonicalize().unwrap()
}

fn sources(folder: &Path, endings: &[&str], found: &mut Vec<PathBuf>) {
    let mut entries: Vec<_> = std::fs::read_dir(folder).unwrap().map(|entry| entry.unwrap().path()).collect();
    entries.sort();
    for path in entries {
        if path.is_dir() {
            sources(&path, endings, found);
        } else if endings.iter().any(|ending| path.to_string_lossy().ends_with(ending)) {
            found.push(path);
        }
    }
}

fn shown(path: &Path, from: &Path) -> String {
    path.strip_prefix(from).unwrap().to_string_lossy().into_owned()
}

/// The source without its line comments and without the test module at its end.
fn code(path: &Path) -> String {
    let text = std::fs::read_to_string(path).unwrap();
    // A module of tests in a file of its own is declared where the rest goes on.
    let text = text.split("mod tests {").next().unwrap_or_default();
    let lines = text.lines().map(|line| line.split("//").next().unwrap_or_default());
    lines.collect::<Vec<_>>().join("\n")
}

/// Every path that begins with `crate`, `super` or `self`, the items of braces one by one.
fn rust_paths(code: &str) -> Vec<Vec<String>> {
    let mut paths = Vec::new();
    let bytes = code.as_bytes();
    for start in ["crate::", "super::", "self::"] {
        for (at, _) in code.match_indices(start) {
            let before = at.checked_sub(1).map(|index| bytes[index]);
            if before.is_some_and(|byte| byte.is_ascii_alphanumeric() || byte == b'_' || byte == b':') {
                continue;
            }
            // A façade passes names on; it does not use them.
            let line = code[..at].rfind('\n').map_or(0, |newline| newline + 1);
            if code[line..at].trim_start().starts_with("pub use") {
                continue;
            }
            branch(&code[at..], &mut Vec::new(), &mut paths);
        }
    }
    paths
}

/// Paths that begin with a module declared in this very file: `words::says`, as in `self::words`.
fn by_declared_name(code: &str) -> Vec<Vec<String>> {
    let mut paths = Vec::new();
    for declared in code.lines().filter_map(|line| line.trim().strip_suffix(';')) {
        let Some((_, name)) = declared.split_once("mod ") else { continue };
        for (at, _) in code.match_indices(&format!("{name}::")) {
            let before = at.checked_sub(1).map(|index| code.as_bytes()[index]);
            let inside =
                before.is_some_and(|byte| byte.is_ascii_alphanumeric() || byte == b'_' || byte == b':');
            let line = code[..at].rfind('\n').map_or(0, |newline| newline + 1);
            if !inside && !code[line..at].trim_start().starts_with("pub use") {
                branch(&format!("self::{}", &code[at..]), &mut Vec::new(), &mut paths);
            }
        }
    }
    paths
}

/// Reads one path, with its braces, and tells how many bytes it took.
fn branch(text: &str, before: &mut Vec<String>, paths: &mut Vec<Vec<String>>) -> usize {
    let depth = before.len();
    let mut at = 0;
    loop {
        let rest = &text[at..];
        let word = rest.chars().take_while(|c| c.is_alphanumeric() || *c == '_').collect::<String>();
        at += word.len();
        if word.is_empty() && text[at..].starts_with('{') {
            at += 1;
            loop {
                at += text[at..].len() - text[at..].trim_start_matches([' ', '\n', ',']).len();
                if text[at..].starts_with('}') || at >= text.len() {
                    at += 1;
                    break;
                }
                let taken = branch(&text[at..], before, paths);
                at += taken.max(1);
            }
            break;
        }
        before.push(word);
        if text[at..].starts_with("::") {
            at += 2;
        } else {
            paths.push(before.clone());
            break;
        }
    }
    before.truncate(depth);
    at
}

/// The imports of a crate's files among each other.
fn of_crate(source: &Path) -> Imports {
    let mut files = Vec::new();
    sources(source, &[".rs"], &mut files);
    let module = |file: &Path| -> Vec<String> {
        let path = shown(file, source);
        let mut parts: Vec<String> = path.trim_end_matches(".rs").split('/').map(str::to_owned).collect();
        if matches!(parts.last().map(String::as_str), Some("mod" | "lib" | "main")) {
            parts.pop();
        }
        parts
    };
    let by_module: BTreeMap<Vec<String>, String> =
        files.iter().map(|file| (module(file), shown(file, source))).collect();
    let mut imports = Imports::new();
    for file in &files {
        let here = module(file);
        let name = shown(file, source);
        let mut to = BTreeSet::new();
        let code = code(file);
        let mut paths = rust_paths(&code);
        paths.extend(by_declared_name(&code));
        for path in paths {
            let mut place: Vec<String> = match path[0].as_str() {
                "crate" => Vec::new(),
                _ => here.clone(),
            };
            for part in &path {
                match part.as_str() {
                    "crate" | "self" => {}
                    "super" => {
                        place.pop();
                    }
                    other => place.push(other.to_owned()),
                }
            }
            // The longest beginning that is a module is the file the name stands in.
            while !place.is_empty() && !by_module.contains_key(&place) {
                place.pop();
            }
            if let Some(other) = by_module.get(&place).filter(|other| **other != name && !place.is_empty()) {
                to.insert(other.clone());
            }
        }
        imports.insert(name, to);
    }
    imports
}

/// Files, or folders, that reach themselves.
fn circles(imports: &Imports) -> Vec<String> {
    let reach = |from: &str| {
        let mut seen = BTreeSet::new();
        let mut open: Vec<&str> = imports.get(from).into_iter().flatten().map(String::as_str).collect();
        while let Some(next) = open.pop() {
            if seen.insert(next.to_owned()) {
                open.extend(imports.get(next).into_iter().flatten().map(String::as_str));
            }
        }
        seen
    };
    imports.keys().filter(|file| reach(file).contains(*file)).cloned().collect()
}

/// The same between folders, and the files beside them, so many folders deep.
fn folders(imports: &Imports, depth: usize) -> Imports {
    let room = |file: &str| file.split('/').take(depth).collect::<Vec<_>>().join("/");
    let mut between = Imports::new();
    for (from, to) in imports {
        let here = room(from);
        let others = to.iter().map(|file| room(file)).filter(|other| *other != here);
        between.entry(here.clone()).or_default().extend(others.collect::<Vec<_>>());
    }
    between
}

/// The crates whose sources are read here; the client's circles and long functions are its linter's (`web/biome.jsonc`).
const CRATES: [&str; 11] = [
    "core",
    "document",
    "job",
    "words",
    "results",
    "store",
    "card",
    "instruments",
    "practice",
    "server",
    "e2e",
];

/// No folder lies deeper than this.
const DEEPEST: usize = 4;

#[test]
fn no_file_and_no_folder_imports_itself_by_way_of_others() {
    let mut read = 0;
    for name in CRATES {
        let imports = of_crate(&root().join(format!("crates/{name}/src")));
        read += imports.values().map(BTreeSet::len).sum::<usize>();
        assert_eq!(
            circles(&imports),
            Vec::<String>::new(),
            "files of crates/{name} import each other in circles"
        );
        for depth in 1..=DEEPEST {
            let found = circles(&folders(&imports, depth));
            assert_eq!(found, Vec::<String>::new(), "folders of crates/{name}, {depth} deep");
        }
    }
    assert!(read > 400, "only {read} imports were read: the check sees too little");
}

#[test]
fn a_circle_would_be_seen() {
    let imports = |rows: &[(&str, &str)]| {
        let mut all = Imports::new();
        for (from, to) in rows {
            all.entry((*from).to_owned()).or_default().insert((*to).to_owned());
        }
        all
    };
    let round = imports(&[("a/x", "b/y"), ("b/y", "c/z"), ("c/z", "a/x"), ("d/w", "a/x")]);
    assert_eq!(circles(&round), ["a/x", "b/y", "c/z"]);
    // Folders can go in a circle where no file does.
    let straight = imports(&[("a/x", "b/y"), ("b/z", "a/w")]);
    assert_eq!(circles(&straight), Vec::<String>::new());
    assert_eq!(circles(&folders(&straight, 1)), ["a", "b"]);
    let paths =
        rust_paths("use crate::bar::{self, need::{Need, NeedReason}, words};\nlet x = super::moves::of();");
    let reported: Vec<String> = paths.iter().map(|path| path.join("::")).collect();
    for path in
        ["crate::bar::need::Need", "crate::bar::need::NeedReason", "crate::bar::words", "super::moves::of"]
    {
        assert!(reported.iter().any(|other| other == path), "{path}: {reported:?}");
    }
}

/// Where a phrase is made: `Phrase::of`, `Phrase::plain` or a literal of it; a return type is none.
fn makes_sentences(code: &str) -> bool {
    let literal = code.match_indices("Phrase {").any(|(at, _)| {
        let before = code[..at].trim_end();
        !before.ends_with("->") && !before.ends_with("struct") && !before.ends_with("for")
    });
    code.contains("Phrase::of(") || code.contains("Phrase::plain(") || literal
}

#[test]
fn sentences_are_made_in_words_alone() {
    let strays: Vec<String> = sources_of(&["job", "results", "card"])
        .into_iter()
        .filter(|(_, code)| makes_sentences(code))
        .map(|(file, _)| file)
        .collect();
    assert_eq!(strays, Vec::<String>::new(), "sentences are made in crates/words");
    let said = sources_of(&["words"]).into_iter().filter(|(_, code)| makes_sentences(code)).count();
    assert!(said > 8, "the check sees {said} files of sentences");
    let of_the_job = sources_of(&["job"]).into_iter().filter(|(_, code)| code.contains("Phrase"));
    let named: Vec<String> = of_the_job.map(|(file, _)| file).collect();
    assert_eq!(named, Vec::<String>::new(), "the job holds facts alone");
}

#[test]
fn a_sentence_made_elsewhere_would_be_seen() {
    assert!(makes_sentences("let says = Phrase::of(|w| w.fine(length));"));
    assert!(makes_sentences("let says = Phrase::plain(\"none\");"));
    assert!(makes_sentences("return Phrase { inches, millimetres };"));
    assert!(!makes_sentences("fn says() -> Phrase { words::says() }"));
    assert!(!makes_sentences("let says = Phrase::default();"));
}

/// Where a sentence is taken apart again: what a stage decides would hang on a wording.
fn reads_a_sentence_back(code: &str) -> bool {
    [".inches", ".millimetres", ".in_unit("].iter().any(|read| {
        code.match_indices(read).any(|(at, _)| {
            let after = code[at + read.len()..].chars().next();
            read.ends_with('(') || !after.is_some_and(|c| c.is_alphanumeric() || c == '_')
        })
    })
}

#[test]
fn facts_are_never_read_back_out_of_sentences() {
    let folder = root().join("crates/job/src");
    let mut files = Vec::new();
    sources(&folder, &[".rs"], &mut files);
    assert!(files.len() > 60, "the check sees {} files", files.len());
    let readers: Vec<String> = files
        .iter()
        .filter(|file| reads_a_sentence_back(&code(file)))
        .map(|file| shown(file, &folder))
        .collect();
    assert_eq!(readers, Vec::<String>::new(), "decisions hang on facts, never on what is said of them");
}

#[test]
fn a_sentence_read_back_would_be_seen() {
    assert!(reads_a_sentence_back("let assumed = says.inches.starts_with(name);"));
    assert!(reads_a_sentence_back("if says.in_unit(unit) == other"));
    assert!(!reads_a_sentence_back("let form = says.inches_form;"));
    assert!(!reads_a_sentence_back("fn in_unit(value: f64) -> f64 { in_unit(value) }"));
}

/// Every source of the crates that compute, with its path from the root.
fn sources_of(crates: &[&str]) -> Vec<(String, String)> {
    let root = root();
    let mut files = Vec::new();
    for name in crates {
        sources(&root.join(format!("crates/{name}/src")), &[".rs"], &mut files);
    }
    files.iter().map(|file| (shown(file, &root), code(file))).collect()
}

/// Functions of a source with their lines: from `fn` to the brace below it.
fn functions(code: &str) -> Vec<(String, usize)> {
    let lines: Vec<&str> = code.lines().collect();
    let begun = |line: &str| {
        let text = line.trim_start();
        let text = text.strip_prefix("pub ").or_else(|| text.strip_prefix("pub(super) ")).unwrap_or(text);
        let text = text.strip_prefix("pub(crate) ").unwrap_or(text);
        let text = text.strip_prefix("const ").or_else(|| text.strip_prefix("async ")).unwrap_or(text);
        let name = text.strip_prefix("fn ")?.split(['(', '<']).next()?.to_owned();
        Some((name, line.len() - line.trim_start().len()))
    };
    let ends = |line: &str, indent: usize| line.len() == indent + 1 && line.trim_start() == "}";
    let found = lines.iter().enumerate().filter_map(|(at, line)| {
        let (name, indent) = begun(line)?;
        let long = lines[at..].iter().position(|line| ends(line, indent))?;
        Some((name, long + 1))
    });
    found.collect()
}

/// A function longer than this does two things.
const LONG: usize = 60;

/// Long functions there are at most, in a thousand.
const LONG_IN_A_THOUSAND: usize = 10;

#[test]
fn functions_are_short() {
    let all: Vec<(String, String, usize)> = sources_of(&CRATES)
        .iter()
        .flat_map(|(file, code)| functions(code).into_iter().map(|(name, long)| (file.clone(), name, long)))
        .collect();
    assert!(all.len() > 1500, "only {} functions were read", all.len());
    let long: Vec<&(String, String, usize)> = all.iter().filter(|(.., long)| *long > LONG).collect();
    assert!(long.len() * 1000 <= all.len() * LONG_IN_A_THOUSAND, "{} of {}: {long:?}", long.len(), all.len());
    let body = "    let x = 1;\n".repeat(70);
    assert_eq!(functions(&format!("fn long() {{\n{body}}}\n")), [("long".to_owned(), 72)]);
}

/// Where core, document and job start threads: both halves of an envelope, and what a stage works out beside it.
const THREADS: [&str; 3] =
    ["crates/job/src/assembly/mod.rs", "crates/job/src/cycle/mod.rs", "crates/job/src/sway/mod.rs"];

#[test]
fn threads_are_started_where_they_are_known() {
    let starts =
        |code: &str| ["thread::scope", "thread::spawn", "rayon::"].iter().any(|start| code.contains(start));
    let found: Vec<String> = sources_of(&["core", "document", "job"])
        .into_iter()
        .filter(|(_, code)| starts(code))
        .map(|(file, _)| file)
        .collect();
    assert_eq!(found, THREADS);
}

#[test]
fn every_default_says_what_it_is() {
    let text = std::fs::read_to_string(root().join("crates/job/src/defaults.rs")).unwrap();
    let lines: Vec<&str> = text.lines().collect();
    let mut seen = 0;
    for (at, line) in lines.iter().enumerate().filter(|(_, line)| line.starts_with("pub const ")) {
        seen += 1;
        let doc: Vec<&str> = lines[..at].iter().rev().map_while(|line| line.strip_prefix("/// ")).collect();
        let words = doc.join(" ").split_whitespace().count();
        assert!(words >= 4, "{line} does not say what it is and where it is from");
    }
    assert!(seen > 30, "only {seen} defaults were read");
}

/// Texts of a source as they stand between their quotes, with what stands before each on its line.
fn texts(code: &str) -> Vec<(&str, &str)> {
    let bytes = code.as_bytes();
    let (mut found, mut at) = (Vec::new(), 0);
    while at < bytes.len() {
        match bytes[at] {
            // A quote as a character is no text.
            b'\'' if code[at..].starts_with("'\"'") => at += 3,
            b'"' => {
                let from = at + 1;
                let mut to = from;
                while to < bytes.len() && bytes[to] != b'"' {
                    to += if bytes[to] == b'\\' { 2 } else { 1 };
                }
                let before = &code[code[..at].rfind('\n').map_or(0, |line| line + 1)..at];
                found.push((&code[from..to.min(bytes.len())], before));
                at = to + 1;
            }
            _ => at += 1,
        }
    }
    found
}

/// English among the texts of a source: two words and more, that are no formula and no reason of a lint.
fn english(code: &str) -> Vec<&str> {
    let is_word = |word: &&str| word.chars().all(|c| c.is_ascii_alphabetic() || ",.'".contains(c));
    let is_english = |text: &str| text.split_whitespace().filter(is_word).count() >= 2;
    let found = texts(code).into_iter().filter(|(_, before)| !before.trim_end().ends_with("reason ="));
    found.map(|(text, _)| text).filter(|text| is_english(text) && !text.contains(" = ")).collect()
}

/// The job finds facts; whoever writes them says them. What is asked at a field stands with the document.
#[test]
fn no_english_stands_among_the_facts() {
    let files = sources_of(&["job"]);
    let found: Vec<(&str, &str)> = files
        .iter()
        .filter(|(file, _)| !file.ends_with("/tests.rs"))
        .flat_map(|(file, code)| english(code).into_iter().map(move |text| (file.as_str(), text)))
        .collect();
    assert!(files.len() > 80, "only {} files were read", files.len());
    assert_eq!(found, [], "what is said belongs into crates/words");
    assert_eq!(english("let x = \"the axle sits\"; let y = \"one_end\";"), ["the axle sits"]);
    assert_eq!(english("text.contains(|c| c == '\"') || text == \"as it is\""), ["as it is"]);
    assert_eq!(english("#[expect(dead_code, reason = \"of no use\")]"), Vec::<&str>::new());
}

/// What is tested is what ships: features that another crate turns on for the tests are on in the program, too.
#[test]
fn json_keeps_its_order_in_the_program_as_in_the_tests() {
    let manifest = std::fs::read_to_string(root().join("Cargo.toml")).unwrap();
    let line = manifest.lines().find(|line| line.starts_with("serde_json")).unwrap();
    assert!(line.contains("\"preserve_order\"") && line.contains("\"float_roundtrip\""), "{line}");
    let value: serde_json::Value = serde_json::from_str("{\"b\":1,\"a\":2}").unwrap();
    assert_eq!(value.to_string(), "{\"b\":1,\"a\":2}");
}

/// Public functions of the core that show an example, of a hundred.
const SHOWN_IN_A_HUNDRED: usize = 30;

#[test]
fn three_in_ten_functions_of_the_core_show_an_example() {
    let folder = root().join("crates/core/src");
    let mut files = Vec::new();
    sources(&folder, &[".rs"], &mut files);
    let texts = files.iter().map(|file| std::fs::read_to_string(file).unwrap());
    let (mut functions, mut fences) = (0, 0);
    for text in texts {
        let lines = text.lines().map(str::trim_start);
        functions += lines
            .clone()
            .filter(|line| line.starts_with("pub fn ") || line.starts_with("pub const fn "))
            .count();
        fences += lines.filter(|line| line.starts_with("/// ```")).count();
    }
    assert!(functions > 250, "only {functions} functions were read");
    assert!(fences / 2 * 100 >= functions * SHOWN_IN_A_HUNDRED, "{} of {functions}", fences / 2);
}

/// Lines of the client's own tests for a hundred of the client's.
const CLIENT_TESTED: usize = 15;

#[test]
fn the_client_is_tested_without_a_browser_too() {
    let lines = |folder: &str| -> usize {
        let mut files = Vec::new();
        sources(&root().join(folder), &[".ts", ".tsx"], &mut files);
        let own = files.iter().filter(|file| !file.ends_with("schema.d.ts"));
        own.map(|file| std::fs::read_to_string(file).unwrap().lines().count()).sum()
    };
    let (client, tests) = (lines("web/src"), lines("web/tests"));
    assert!(client > 15_000, "only {client} lines were read");
    assert!(tests * 100 >= client * CLIENT_TESTED, "{tests} of {client}");
}

/// A colour that nothing defines is drawn black, or not at all, without a word.
#[test]
fn every_colour_of_the_client_is_one_it_has() {
    let web = root().join("web/src");
    let styles = std::fs::read_to_string(web.join("index.css")).unwrap();
    let defined = |name: &str| styles.lines().any(|line| line.trim_start().starts_with(&format!("{name}:")));
    let mut files = Vec::new();
    sources(&web, &[".ts", ".tsx", ".css"], &mut files);
    let is_of_a_name = |c: char| c.is_ascii_lowercase() || c.is_ascii_digit() || c == '-';
    let mut unknown = Vec::new();
    for file in &files {
        let text = std::fs::read_to_string(file).unwrap();
        let names = |before: &'static str| {
            text.split(before)
                .skip(1)
                .map(move |rest| rest.split(|c| !is_of_a_name(c)).next().unwrap_or_default())
        };
        // Radix sets its own at run time.
        let variables = names("var(").filter(|name| name.len() > 2 && !name.starts_with("--radix-"));
        unknown.extend(
            variables.filter(|name| !defined(name)).map(|name| format!("{} {name}", shown(file, &web))),
        );
        let grounds = names(" bg-").chain(names("\"bg-")).chain(names(":bg-"));
        let made = grounds.filter(|name| !["transparent", "black", ""].contains(name));
        unknown.extend(
            made.filter(|name| !defined(&format!("--color-{name}")))
                .map(|name| format!("{} bg-{name}", shown(file, &web))),
        );
    }
    assert_eq!(unknown, Vec::<String>::new());
}
