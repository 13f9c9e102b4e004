#pragma once

/// The records of a kit by name alone, for who only hands them on.
namespace poquito::gear {

struct Camera;
struct Flash;
struct Kit;
struct Lamp;
struct Lens;
struct Modifier;
struct Rail;
struct Stand;
struct StepReading;

}  // namespace poquito::gear
