//! Says where the built web client is. A fresh clone has none yet: the program is built without it then, serves its
//! interface, and says on its page how to build the client.

use std::path::{Path, PathBuf};

fn main() {
    let crate_folder = PathBuf::from(std::env::var_os("CARGO_MANIFEST_DIR").unwrap_or_default());
    let built = crate_folder.join("../../web/dist");
    println!("cargo:rerun-if-changed={}", built.display());
    if built.join("index.html").exists() {
        println!("cargo:rustc-env=DERECHO_CLIENT={}", built.display());
        return;
    }
    let empty = Path::new(&std::env::var_os("OUT_DIR").unwrap_or_default()).join("no-client");
    if let Err(error) = std::fs::create_dir_all(&empty) {
        println!("cargo:warning=the folder {} cannot be made: {error}", empty.display());
    }
    println!(
        "cargo:warning=the web client is not built: this program will have no screens. bin/derecho-demo builds both"
    );
    println!("cargo:rustc-env=DERECHO_CLIENT={}", empty.display());
}
