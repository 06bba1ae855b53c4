//! The models from outside: against the reference cases, and against what must hold whatever is asked.

mod bake_reference;
mod fire;
mod fire_notes;
mod fire_plan;
mod mix_judged;
mod mix_laws;
mod mix_reference;
mod oven;
mod reference_cases;
mod run;
mod shape_laws;
mod shape_reference;
