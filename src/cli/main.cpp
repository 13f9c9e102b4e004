#include "cli/commands.hpp"

#include <CLI/CLI.hpp>

#include <cstdio>
#include <exception>
#include <functional>

namespace {

/// What a command printed is worth something only where it arrived: a full disk is an error of every command.
int checked(const std::function<int()>& command) {
    using namespace poquito::cli;
    int status = bad_input;
    try {
        status = command();
    } catch (const std::exception& error) {
        std::fprintf(stderr, "poquito-cli: %s\n", error.what());
        return bad_input;
    }
    if (std::fflush(stdout) == 0 && std::ferror(stdout) == 0) return status;
    std::fprintf(stderr, "standard output: cannot be written to its end\n");
    return status == done ? bad_input : status;
}

}  // namespace

// The words of the command line and nothing else: what they stand for is done in commands.cpp, which knows no CLI11.
int main(int argc, char** argv) {
    using namespace poquito::cli;

    CLI::App app{
        "Computes close-up photographs from a Poquito shoot file.\n"
        "Exit status: 0 done, 1 bad input (one line on standard error names the place), 2 bad usage, 3 a run broke "
        "off and can be gone on with."};
    app.name("poquito-cli");
    app.set_version_flag("--version", "poquito-cli " POQUITO_VERSION, "Print the version");
    app.require_subcommand(1);

    std::string file;
    std::string out;
    auto* report_command = app.add_subcommand("report", "Print what every shot comes to, as one JSON object");
    report_command->add_option("FILE", file, "A shoot file (.poquito)")->required();
    auto* sheet_command = app.add_subcommand(
        "sheet", "Write the run sheet as HTML; with drawings, and as PDF, the desktop does: poquito --sheet OUT FILE");
    sheet_command->add_option("FILE", file, "A shoot file (.poquito)")->required();
    sheet_command->add_option("OUT", out, "Where the sheet goes, *.html")
        ->required()
        ->check([](const std::string& name) {
            return name.ends_with(".html") ? std::string() : name + ": expected a name ending in .html";
        });
    std::string shot;
    auto* stack_command = app.add_subcommand("stack", "Print the frames of a shot's stack and where each is focused");
    stack_command->add_option("FILE", file, "A shoot file (.poquito)")->required();
    stack_command->add_option("SHOT", shot, "Id of the shot")->required();
    auto* order_command = app.add_subcommand("order", "Print the order of the shots that costs least work");
    order_command->add_option("FILE", file, "A shoot file (.poquito)")->required();
    order_command->add_option("--out", out, "Write the shoot in that order to this file");
    double seconds = 20;
    order_command->add_option("--seconds", seconds, "Look no longer than that, and give the best found; 20 if not said")
        ->check(CLI::Range(0.1, 86400.0));
    auto* plan_command =
        app.add_subcommand("plan", "Print the whole plans of a shot, one a school, best first, as one JSON object");
    plan_command->add_option("FILE", file, "A shoot file (.poquito)")->required();
    plan_command->add_option("SHOT", shot, "Id of the shot")->required();
    int take = 0;
    auto* take_option = plan_command->add_option("--take", take, "Write the shoot with this plan, from 1, to --out")
                            ->check(CLI::PositiveNumber);
    auto* out_option = plan_command->add_option("--out", out, "Where that shoot goes");
    take_option->needs(out_option);
    out_option->needs(take_option);
    RunRequest run;
    auto* run_command = app.add_subcommand(
        "run", "Take a shot on the simulated bench; goes on where its last run in the folder broke off");
    run_command->add_option("FILE", file, "A shoot file (.poquito)")->required();
    run_command->add_option("SHOT", run.shot, "Id of the shot")->required();
    run_command->add_option("FOLDER", run.folder, "Where frames and journal go")->required();
    run_command->add_option("--book", run.book,
                            "The logbook it is entered in; the one in the user's data folder if not said");
    run_command->add_flag("--no-book", run.no_book, "Enter it in no logbook");
    run_command->add_option("--speed", run.speed, "Times as fast as the wall clock")->check(CLI::Range(0.1, 1e6));
    run_command->add_flag("--tests", run.tests_only, "First, middle and last frame only");
    run_command->add_option("--width", run.width, "Pixels across of the frames")->check(CLI::Range(24, 6000));
    run_command->add_flag("--serial", run.serial, "Speak to the simulated rail over a pseudo-terminal");
    run_command->add_option("--rail", run.device,
                            "A serial line with a motion controller in place of the simulated rail");
    run_command->add_option("--dialect", run.dialect, "What it understands, as JSON; see docs/motion-protocol.md");
    run_command->add_option("--trouble", run.troubles, "Something that goes wrong, such as flash-not-ready@5");
    std::string folder;
    auto* deliver_command = app.add_subcommand(
        "deliver",
        "Cut the pictures that the shoot's outlets get, from FOLDER/finished and from frames that were taken");
    deliver_command->add_option("FILE", file, "A shoot file (.poquito)")->required();
    deliver_command->add_option("FOLDER", folder, "Where they go, a folder an outlet")->required();
    bool overwrite = false;
    deliver_command->add_flag("--overwrite", overwrite, "Put them in the place of pictures that are there already");
    BookRequest book;
    auto* book_command =
        app.add_subcommand("book", "Look things up in the logbook of all shoots, or bring it elsewhere");
    book_command->add_option("--book", book.path, "The logbook; the one in the user's data folder if not said");
    book_command->add_option("--words", book.words, "Print what has these words, or words that begin so");
    book_command->add_option("--export", book.out, "Write all of it to this file, *.json or *.csv");
    book_command->add_option("--import", book.in, "Bring in entries of this file, *.json or *.csv");
    book_command->add_option("--forget", book.forget, "Take the entry of this number out for good");
    book_command->add_flag("--lessons", book.lessons, "Print what it teaches, with cases and intervals");
    std::string journal;
    auto* log_command = app.add_subcommand("log", "Print what a run's journal says was exposed");
    log_command->add_option("JOURNAL", journal, "A file ending in .journal")->required();
    InspectRequest inspect;
    auto* inspect_command = app.add_subcommand(
        "inspect", "Print what is wrong with frames: a stack's, or with --singles each by itself, as one JSON object");
    auto* shoot_option =
        inspect_command->add_option("--shoot", inspect.shoot, "A shoot file (.poquito) that plans them");
    auto* shot_option = inspect_command->add_option("--shot", inspect.shot, "Id of the shot that they are of");
    shoot_option->needs(shot_option);
    shot_option->needs(shoot_option);
    inspect_command->add_option(
        "--book", inspect.book,
        "The logbook that it is entered in, where the shot is known; the one in the user's data folder if not said");
    inspect_command->add_flag("--no-book", inspect.no_book, "Enter it in no logbook");
    inspect_command->add_flag("--singles", inspect.singles, "Frames by themselves, not one stack");
    auto* watch_flag = inspect_command->add_flag(
        "--watch", inspect.watch, "FRAMES is a folder: one line of JSON for each frame as it comes, until interrupted");
    inspect_command->add_option("--until-quiet", inspect.quiet, "With --watch: end when none came for so many seconds")
        ->check(CLI::PositiveNumber)
        ->needs(watch_flag);
    inspect_command->add_option("FRAMES", inspect.frames, "Picture files: JPEG, TIFF, PNG or raw")->required();
    SunRequest sun;
    auto* sun_command = app.add_subcommand("sun", "Print where the sun stands and what it does that day, as JSON");
    sun_command->add_option("--latitude", sun.latitude, "Degrees north")->required()->check(CLI::Range(-90.0, 90.0));
    sun_command->add_option("--longitude", sun.longitude, "Degrees east")->required()->check(CLI::Range(-180.0, 180.0));
    sun_command->add_option("--date", sun.date, "YYYY-MM-DD")->required();
    sun_command->add_option("--time", sun.time, "HH:MM:SS, local to the offset");
    sun_command->add_option("--utc-offset", sun.utc_offset, "Hours east of UTC; 0 if not said")
        ->check(CLI::Range(-24.0, 24.0));
    double travel = 100, speed = 1;
    auto* rail_command = app.add_subcommand(
        "rail", "Simulate a motion controller; prints the pseudo-terminal to open and serves until interrupted");
    rail_command->add_option("--travel", travel, "mm")->check(CLI::PositiveNumber);
    rail_command->add_option("--speed", speed, "Times as fast as the wall clock")->check(CLI::Range(0.1, 1e6));
    try {
        app.parse(argc, argv);
    } catch (const CLI::ParseError& error) {
        return app.exit(error) == 0 ? done : bad_usage;
    }

    return checked([&] {
        if (log_command->parsed()) return show_log(journal);
        if (inspect_command->parsed()) return inspect_frames(inspect);
        if (sun_command->parsed()) return print_sun(sun);
        if (rail_command->parsed()) return serve_rail(travel, speed);
        if (stack_command->parsed()) return print_stack(file, shot);
        if (book_command->parsed()) return use_book(book);
        if (deliver_command->parsed()) return deliver_pictures(file, folder, overwrite);
        if (order_command->parsed()) return order_shots(file, out, seconds);
        if (plan_command->parsed()) return print_plans(file, shot, take, out);
        if (run_command->parsed()) return run_shot(file, run);
        return report_command->parsed() ? report(file) : write_sheet(file, out);
    });
}
