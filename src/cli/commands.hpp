#pragma once

#include "proof/inspection.hpp"
#include "shoot/shoot.hpp"

#include <filesystem>
#include <string>
#include <vector>

/// The subcommands. They take what was typed, `file` being a shoot file, and return the program's exit status; what is
/// wrong with the input they say in one line on standard error.
namespace poquito::cli {

enum ExitCode { done = 0, bad_input = 1, bad_usage = 2, broke_off = 3 };

/// Prints what every shot comes to.
int report(const std::string& file);

/// Writes the run sheet to `out`, as HTML.
int write_sheet(const std::string& file, const std::string& out);

/// Cuts what a shoot's outlets get into folders of `folder`; what it could not goes to standard error, a line each.
/// A picture that is there already stays unless it is to be replaced.
int deliver_pictures(const std::string& file, const std::filesystem::path& folder, bool replace);

struct RunRequest {
    std::string shot;  // id
    std::filesystem::path folder;
    double speed = 1;
    bool tests_only = false;
    bool serial = false;
    std::string device;
    std::string dialect;  // path
    std::vector<std::string> mishaps;
    int width = 960;
    std::filesystem::path book;  // that it is entered in; empty: the one in the user's data folder
    bool no_book = false;        // in none
};
/// Takes a shot on the simulated bench, or goes on with it where its last run broke off.
int run_shot(const std::string& file, const RunRequest& request);

/// Says why the file that was named as the logbook is none; false: it is one, will be one, or none was named.
bool refuses_book(const std::filesystem::path& named);

/// Enters what happened in a logbook, the user's own where the path is empty; what goes wrong there is told and stops
/// nothing.
void enter_run(const std::filesystem::path& book, const shoot::Shoot& shoot, const shoot::Shot& shot,
               const shoot::RunRecord& record);
void enter_inspection(const std::filesystem::path& book, const shoot::Shoot& shoot, const shoot::Shot& shot,
                      const proof::Inspection& inspection);

struct BookRequest {
    std::filesystem::path path;  // empty: in the user's data folder
    std::string words;
    std::string out, in;   // files
    long long forget = 0;  // id; 0: none
    bool lessons = false;
};
/// What is asked of the logbook; without anything asked, its newest entries.
int use_book(const BookRequest& request);

/// Prints the journal in a folder as the log will have it.
int show_log(const std::filesystem::path& journal);

/// Prints the order that costs least work, or the best found within `seconds`; with `out`, writes the shoot in that
/// order.
int order_shots(const std::string& file, const std::string& out, double seconds);

/// Prints a shot's whole plans; with `take` above 0, writes the shoot with that plan, counted from 1, to `out`, which
/// is another file than `file`.
int print_plans(const std::string& file, const std::string& shot, int take, const std::string& out);

/// Prints the frames of a shot's stack, one a line.
int print_stack(const std::string& file, const std::string& shot);

struct InspectRequest {
    std::string shoot;  // file; empty: none
    std::string shot;   // id
    bool singles = false;
    bool watch = false;  // `frames` is one folder, whose frames are told of as they come
    double quiet = 0;    // s without any that end it; 0: only an interrupt does
    std::vector<std::string> frames;
    std::filesystem::path book;  // that it is entered in where the shot is known; empty: the one in the data folder
    bool no_book = false;        // in none
};
/// Prints what is wrong with frames, against the plan of a shot or against one another.
int inspect_frames(const InspectRequest& request);

struct SunRequest {
    double latitude = 0, longitude = 0;  // degrees, north and east
    std::string date;                    // ISO 8601
    std::string time;                    // HH:MM:SS; empty: none
    double utc_offset = 0;               // h
};
/// Prints where the sun stands and what it does that day, as one JSON object.
int print_sun(const SunRequest& request);

/// A simulated motion controller behind a pseudo-terminal, until it is ended.
int serve_rail(double travel, double speed);

}  // namespace poquito::cli
