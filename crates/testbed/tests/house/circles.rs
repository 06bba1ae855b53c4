//! The house has no circles: no two files of a crate need each other, directly or by way of others.
//!
//! A folder and its own files are one room: a `mod.rs` may use its files, and they what it defines. A `pub use` names where
//! a thing is found and needs nothing by itself.

use std::collections::{BTreeMap, BTreeSet};
use std::fs;
use std::path::Path;
use syn::visit::Visit;

type Module = Vec<String>;

/// What one file says: what it passes on under which name, what it imports, and every path that it writes.
#[derive(Default)]
struct Said {
    passed_on: BTreeMap<String, Vec<String>>,
    imported: BTreeMap<String, Vec<String>>,
    written: Vec<Vec<String>>,
}

impl Said {
    fn tree(&mut self, tree: &syn::UseTree, before: &[String], is_pub: bool) {
        let with = |name: String| [before, &[name]].concat();
        let into = match is_pub {
            true => &mut self.passed_on,
            false => &mut self.imported,
        };
        match tree {
            syn::UseTree::Path(p) => self.tree(&p.tree, &with(p.ident.to_string()), is_pub),
            syn::UseTree::Group(g) => {
                g.items.iter().for_each(|t| self.tree(t, before, is_pub));
            }
            syn::UseTree::Name(n) if n.ident == "self" => {
                into.insert(before.last().cloned().unwrap_or_default(), before.to_vec());
            }
            syn::UseTree::Name(n) => {
                into.insert(n.ident.to_string(), with(n.ident.to_string()));
            }
            syn::UseTree::Rename(r) => {
                into.insert(r.rename.to_string(), with(r.ident.to_string()));
            }
            syn::UseTree::Glob(_) => {
                into.insert(before.join("::"), before.to_vec());
            }
        }
    }
    /// The paths among the tokens of a macro's call.
    fn tokens(&mut self, tokens: proc_macro2::TokenStream) {
        let mut path: Vec<String> = vec![];
        let mut colons = 0;
        for token in tokens {
            match token {
                proc_macro2::TokenTree::Ident(i) => {
                    if colons != 2 {
                        self.written.push(std::mem::take(&mut path));
                    }
                    path.push(i.to_string());
                    colons = 0;
                }
                proc_macro2::TokenTree::Punct(p) if p.as_char() == ':' => colons += 1,
                proc_macro2::TokenTree::Group(g) => {
                    self.written.push(std::mem::take(&mut path));
                    self.tokens(g.stream());
                }
                _ => self.written.push(std::mem::take(&mut path)),
            }
        }
        self.written.push(path);
    }
}

impl<'a> Visit<'a> for Said {
    fn visit_item_mod(&mut self, m: &'a syn::ItemMod) {
        let of_test = m.attrs.iter().any(|a| {
            a.path().is_ident("cfg") && a.parse_args::<syn::Ident>().is_ok_and(|i| i == "test")
        });
        if !of_test {
            syn::visit::visit_item_mod(self, m);
        }
    }
    fn visit_item_use(&mut self, u: &'a syn::ItemUse) {
        self.tree(&u.tree, &[], !matches!(u.vis, syn::Visibility::Inherited));
    }
    fn visit_path(&mut self, p: &'a syn::Path) {
        self.written
            .push(p.segments.iter().map(|s| s.ident.to_string()).collect());
        syn::visit::visit_path(self, p);
    }
    fn visit_macro(&mut self, m: &'a syn::Macro) {
        self.tokens(m.tokens.clone());
    }
}

fn read(folder: &Path, module: &Module, out: &mut BTreeMap<Module, Said>) {
    for entry in fs::read_dir(folder).unwrap() {
        let path = entry.unwrap().path();
        let name = path.file_stem().unwrap().to_string_lossy().to_string();
        if name.ends_with("tests") {
            continue;
        }
        let within = match name.as_str() {
            "mod" | "lib" | "main" => module.clone(),
            _ => [&module[..], &[name]].concat(),
        };
        if path.is_dir() {
            read(&path, &within, out);
        } else if path.extension().is_some_and(|e| e == "rs") {
            let file = syn::parse_file(&fs::read_to_string(&path).unwrap()).unwrap();
            let mut said = Said::default();
            said.visit_file(&file);
            out.insert(within, said);
        }
    }
}

struct House(BTreeMap<Module, Said>);

impl House {
    fn open(folder: &Path) -> House {
        let mut out = BTreeMap::new();
        read(folder, &vec![], &mut out);
        House(out)
    }

    /// A path as it is written in a module, from the root of the crate; nothing where it leads out of it.
    fn absolute(&self, from: &Module, path: &[String]) -> Option<Module> {
        let said = self.0.get(from)?;
        let (first, rest) = path.split_first()?;
        match first.as_str() {
            "crate" => Some(rest.to_vec()),
            "self" => Some([from, rest].concat()),
            "super" => {
                let ups = path.iter().take_while(|s| *s == "super").count();
                let up = &from[..from.len().saturating_sub(ups)];
                Some([up, &path[ups..]].concat())
            }
            name => {
                let child = [&from[..], &[name.to_string()]].concat();
                if self.0.contains_key(&child) {
                    return Some([&child, rest].concat());
                }
                let of = said.imported.get(name)?;
                if of.first() == Some(first) {
                    return None;
                }
                Some([self.absolute(from, of)?, rest.to_vec()].concat())
            }
        }
    }

    /// The file that a path from the root is found in, through what others pass on.
    fn file(&self, path: &[String], far: usize) -> Option<Module> {
        let n = (0..=path.len())
            .rev()
            .find(|n| self.0.contains_key(&path[..*n]))?;
        let module = path[..n].to_vec();
        if let (Some(name), true) = (path.get(n), far < 6)
            && let Some(on) = self.0[&module].passed_on.get(name)
        {
            let on = self.absolute(&module, on)?;
            return self.file(&[&on, &path[n + 1..]].concat(), far + 1);
        }
        Some(module)
    }

    fn needs(&self) -> BTreeMap<Module, BTreeSet<Module>> {
        let is_room = |a: &Module, b: &Module| a.starts_with(b) || b.starts_with(a);
        self.0
            .iter()
            .map(|(module, said)| {
                let paths = said.imported.values().chain(&said.written);
                let needs = paths
                    .filter_map(|p| self.absolute(module, p))
                    // A module that is imported is needed for what is used of it, which is written elsewhere.
                    .filter(|p| !self.0.contains_key(p))
                    .filter_map(|p| self.file(&p, 0))
                    .filter(|f| !is_room(f, module))
                    .collect();
                (module.clone(), needs)
            })
            .collect()
    }
}

/// Every file that can be reached from itself, with one way round.
fn circles(needs: &BTreeMap<Module, BTreeSet<Module>>) -> Vec<String> {
    let mut out = vec![];
    for start in needs.keys() {
        let mut came: BTreeMap<&Module, &Module> = BTreeMap::new();
        let mut next = vec![start];
        while let Some(at) = next.pop() {
            for to in &needs[at] {
                if to == start {
                    let mut way = vec![at.join("/")];
                    let mut back = at;
                    while let Some(from) = came.get(back) {
                        way.push(from.join("/"));
                        back = from;
                    }
                    way.reverse();
                    out.push(format!(
                        "{} needs itself: {}",
                        start.join("/"),
                        way.join(" > ")
                    ));
                } else if !came.contains_key(to) {
                    came.insert(to, at);
                    next.push(to);
                }
            }
        }
    }
    out.sort();
    out
}

#[test]
fn no_file_needs_itself_by_way_of_others() {
    let crates = Path::new(env!("CARGO_MANIFEST_DIR")).parent().unwrap();
    for name in ["craft", "speech", "store", "web"] {
        let needs = House::open(&crates.join(name).join("src")).needs();
        let ways: usize = needs.values().map(BTreeSet::len).sum();
        assert!(ways > 5, "{name} was read: {ways} ways");
        let found = circles(&needs);
        assert!(found.is_empty(), "{name}:\n{}", found.join("\n"));
    }
}

#[test]
fn a_circle_is_found_where_there_is_one() {
    let of = |text: &str| {
        let mut said = Said::default();
        said.visit_file(&syn::parse_file(text).unwrap());
        said
    };
    let module = |name: &str| vec![name.to_string()];
    let house = House(BTreeMap::from([
        (vec![], of("mod a; mod b; mod c; pub use b::B;")),
        (module("a"), of("use crate::B; pub struct A(B);")),
        (module("b"), of("use crate::c; pub struct B(c::C);")),
        (
            module("c"),
            of("pub enum C { A, B } fn f() { g!(crate::a::A) }"),
        ),
    ]));
    let found = circles(&house.needs());
    assert_eq!(found.len(), 3, "{found:?}");
    assert_eq!(found[0], "a needs itself: a > b > c");
}
