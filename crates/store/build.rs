fn main() {
    // migrate!() embeds the files: build again when one is added.
    println!("cargo:rerun-if-changed=../../migrations");
}
