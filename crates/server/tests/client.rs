//! What is pure in the client, bundled with its own bundler and run in node: every case of
//! `web/tests/cases.ts` under its own name.
#![allow(clippy::unwrap_used, reason = "a test that unwraps nothing fails, as it should")]

use derecho_results::json::value as in_words;
use std::path::Path;
use std::process::{Command, ExitCode};

use libtest_mimic::{Arguments, Trial};
use serde_json::Value;

fn run(command: &mut Command) -> Result<String, String> {
    let output = command.output().map_err(|error| format!("{command:?}: {error}"))?;
    let text = |bytes: &[u8]| String::from_utf8_lossy(bytes).into_owned();
    if output.status.success() {
        Ok(text(&output.stdout))
    } else {
        Err(format!("{command:?}\n{}{}", text(&output.stdout), text(&output.stderr)))
    }
}

/// Stage Cycle of samples with each kind of axle location: what it is drawn from.
fn posed() -> Result<Value, String> {
    let demo = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../demo");
    let named = ["lookout-truck-7", "relay-wagon-5", "supply-truck-9", "patrol-truck-6", "water-tender-3"];
    let cycled = named.map(|name| {
        let file = demo.join(format!("{name}.derecho.json"));
        let text = std::fs::read_to_string(file).map_err(|error| format!("{name}: {error}"))?;
        let job =
            derecho_job::document::migrate::read(&text).map_err(|error| format!("{name}: {error:?}"))?;
        let (elevation, found) =
            (derecho_results::solve(&job).elevation, in_words(derecho_results::cycle(&job).found));

        let near = in_words(derecho_results::near(&job).found);
        let plan = in_words(derecho_results::plan(&job));
        Ok(serde_json::json!({ "name": name, "elevation": elevation, "setup": found, "near": near, "plan": plan }))
    });
    cycled.into_iter().collect::<Result<Vec<Value>, String>>().map(Value::from)
}

/// One line a case, as `web/tests/cases.ts` prints them.
fn lines() -> Result<Vec<Value>, String> {
    let web = Path::new(env!("CARGO_MANIFEST_DIR")).join("../../web");
    let bundler = web.join("node_modules/.bin/vite");
    if !bundler.is_file() {
        return Err("the client's packages are missing: run bin/derecho-test, or npm ci in web".to_owned());
    }
    let folder = tempfile::tempdir().map_err(|error| error.to_string())?;
    run(Command::new(bundler)
        .current_dir(&web)
        .args(["build", "--ssr", "tests/cases.ts", "--logLevel", "error", "--emptyOutDir", "--outDir"])
        .arg(folder.path()))?;
    let bundle = std::fs::read_dir(folder.path())
        .map_err(|error| error.to_string())?
        .filter_map(|entry| Some(entry.ok()?.path()))
        .find(|path| path.extension().is_some_and(|ending| ending == "js" || ending == "mjs"))
        .ok_or("the bundler wrote nothing")?;
    // Beside no package.json, node has to be told that a bundle is a module.
    let module = bundle.with_extension("mjs");
    std::fs::rename(&bundle, &module).map_err(|error| error.to_string())?;
    // Drawings are held against the core's own poses.
    let poses = folder.path().join("poses.json");
    std::fs::write(&poses, posed()?.to_string()).map_err(|error| error.to_string())?;
    let printed = run(Command::new("node").arg(module).env("DERECHO_POSES", &poses))?;
    printed
        .lines()
        .map(|line| serde_json::from_str(line).map_err(|error| format!("{line}: {error}")))
        .collect()
}

fn main() -> ExitCode {
    let arguments = Arguments::from_args();
    let trials = match lines() {
        Ok(lines) => {
            let few = lines.len() < 20;
            let trial = |line: Value| {
                let name = line["name"].as_str().unwrap_or("a case without a name").to_owned();
                Trial::test(name, move || match line["fault"].as_str() {
                    Some("") => Ok(()),
                    fault => Err(fault.unwrap_or("no verdict").into()),
                })
            };
            let all = Trial::test("every case was run", move || {
                if few { Err("fewer cases than there are in the table".into()) } else { Ok(()) }
            });
            lines.into_iter().map(trial).chain([all]).collect()
        }
        Err(fault) => vec![Trial::test("the client's cases are bundled and run", move || Err(fault.into()))],
    };
    libtest_mimic::run(&arguments, trials).exit_code()
}
