#pragma once

/// What is known of a shot by name alone, for who only hands it on.
namespace poquito::plan {

struct Brace;
struct CaptureReport;
struct LightReport;
struct MotionReport;
struct Plan;
struct Report;

}  // namespace poquito::plan
