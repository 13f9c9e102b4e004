#pragma once

/// The document by name alone, for who only hands it on.
namespace poquito::shoot {

struct HandHeld;
struct Light;
enum class Mover;
struct Rig;
struct RunRecord;
struct Shoot;
struct Shot;
struct Subject;

}  // namespace poquito::shoot
