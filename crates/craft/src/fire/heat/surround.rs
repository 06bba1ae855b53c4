//! What surrounds a column during one step: the sky above, the bottom below, the contact between.
//!
//! Source: bake model, section 5.

use crate::fire::boiling::{RV_OVER_LV, boiling_c, pressure_pa};
use crate::fire::setup::{Back, BakeRequest};

/// Stefan and Boltzmann's, W/m²K⁴.
pub(crate) const SIGMA: f64 = 5.670_374e-8;
/// Emissivity of food and of the cavity.
pub(crate) const EPS_FOOD: f64 = 0.92;
pub(crate) const EPS_CAVITY: f64 = 0.80;
/// Share of black-body exchange between a rack and its cavity.
const EPS_RACK: f64 = 0.9;

#[inline]
pub(crate) fn kelvin(c: f64) -> f64 {
    c + 273.15
}

/// Radiative conductance between two bodies, W/m²K, before emissivity and view.
#[inline]
pub(crate) fn radiative(a_c: f64, b_c: f64) -> f64 {
    let (a, b) = (kelvin(a_c), kelvin(b_c));
    SIGMA * (a * a + b * b) * (a + b)
}

/// What does not change during a bake.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Sky {
    pub dome_c: f64,
    pub air_c: f64,
    /// Emissivity of food against cavity, times the view.
    pub shine: f64,
    pub air_w_m2k: f64,
    pub grill_w_m2: f64,
    pub door_drop_k: f64,
    pub door_s: f64,
    pub back: Back,
    pub back_w_m2: f64,
    pub back_c: f64,
    pub floor_eps: f64,
    /// Where free water boils, °C; its inverse in 1/K; the air's pressure, Pa.
    pub boiling_c: f64,
    pub inverse_boiling_k: f64,
    pub pressure_pa: f64,
}

impl Sky {
    pub(crate) fn of(r: &BakeRequest) -> Sky {
        let o = &r.oven;
        let boiling = boiling_c(r.altitude_m);
        Sky {
            dome_c: o.dome_c,
            air_c: o.air_c.unwrap_or(o.dome_c),
            shine: o.top_factor * o.view / (1.0 / EPS_FOOD + 1.0 / EPS_CAVITY - 1.0),
            air_w_m2k: o.air_w_m2k,
            grill_w_m2: o.top_factor * o.grill_w_m2,
            door_drop_k: o.door_drop_k,
            door_s: o.door_s,
            back: o.back,
            back_w_m2: o.back_w_m2,
            back_c: o.back_c.unwrap_or(o.floor_c),
            floor_eps: o.floor.body().eps,
            boiling_c: boiling,
            inverse_boiling_k: 1.0 / kelvin(boiling),
            pressure_pa: pressure_pa(r.altitude_m),
        }
    }

    /// The air a time after the door was opened, °C.
    pub(crate) fn air_at(&self, t: f64) -> f64 {
        if self.door_drop_k > 0.0 {
            self.air_c - self.door_drop_k * (-t / self.door_s).exp()
        } else {
            self.air_c
        }
    }

    /// What the bottom of the floor gets: a conductance, W/m²K, the temperature behind it, °C, and a flux, W/m².
    #[inline]
    pub(crate) fn below(&self, bottom_c: f64, air_c: f64) -> (f64, f64, f64) {
        match self.back {
            Back::Mass => (0.0, 0.0, 0.0),
            Back::Element => (
                0.0,
                0.0,
                self.back_w_m2 * ((self.back_c + 5.0 - bottom_c) / 10.0).clamp(0.0, 1.0),
            ),
            Back::Air => {
                let hr = EPS_RACK * self.floor_eps * radiative(self.dome_c, bottom_c);
                let hc = 0.8 * self.air_w_m2k;
                (
                    hr + hc,
                    (hr * self.dome_c + hc * air_c) / (hr + hc),
                    self.floor_eps * self.back_w_m2,
                )
            }
        }
    }

    /// Water leaving a surface that does not boil yet, kg/m²s.
    #[inline]
    pub(crate) fn drying(&self, wetness: f64, activity: f64, surface_c: f64) -> f64 {
        let k = kelvin(surface_c.min(self.boiling_c));
        let saturated = 101_325.0 * ((1.0 / 373.15 - 1.0 / k) / RV_OVER_LV).exp();
        wetness * (self.air_w_m2k / 1010.0) * 0.622 * (activity * saturated - 6000.0).max(0.0)
            / self.pressure_pa
    }
}

/// What one step sees.
#[derive(Debug, Clone, Copy)]
pub(crate) struct Surround {
    pub dt: f64,
    pub air_c: f64,
    /// Contact between floor or pan and dough, W/m²K, and between floor and pan.
    pub contact: f64,
    pub floor_pan: f64,
    /// Share of the sky that this column gets: 1, or more at the fire and less away from it.
    pub gain: f64,
    pub cheese_on: bool,
    /// The pan still stands around the dough.
    pub in_pan: bool,
}
