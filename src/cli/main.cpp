#include "cli/commands.hpp"

#include <CLI/CLI.hpp>

#include <algorithm>
#include <cstdio>
#include <exception>
#include <functional>
#include <memory>
#include <string>
#include <vector>

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
namespace poquito::cli {
namespace {

/// A sub-command, and what it does with what was asked.
struct Command {
    CLI::App* app = nullptr;
    std::function<int()> run;
};

Command report_on(CLI::App& app) {
    struct Asked {
        std::string file;
    };
    auto asked = std::make_shared<Asked>();
    auto* command = app.add_subcommand("report", "Print what every shot comes to, as one JSON object");
    command->add_option("FILE", asked->file, "A shoot file (.poquito)")->required();
    return {command, [asked] { return report(asked->file); }};
}

Command sheet(CLI::App& app) {
    struct Asked {
        std::string file;
        std::string out;
    };
    auto asked = std::make_shared<Asked>();
    auto* command = app.add_subcommand(
        "sheet", "Write the run sheet as HTML; with drawings, and as PDF, the desktop does: poquito --sheet OUT FILE");
    command->add_option("FILE", asked->file, "A shoot file (.poquito)")->required();
    command->add_option("OUT", asked->out, "Where the sheet goes, *.html")
        ->required()
        ->check([](const std::string& name) {
            return name.ends_with(".html") ? std::string() : name + ": expected a name ending in .html";
        });
    return {command, [asked] { return write_sheet(asked->file, asked->out); }};
}

Command stack(CLI::App& app) {
    struct Asked {
        std::string file;
        std::string shot;
    };
    auto asked = std::make_shared<Asked>();
    auto* command = app.add_subcommand("stack", "Print the frames of a shot's stack and where each is focused");
    command->add_option("FILE", asked->file, "A shoot file (.poquito)")->required();
    command->add_option("SHOT", asked->shot, "Id of the shot")->required();
    return {command, [asked] { return print_stack(asked->file, asked->shot); }};
}

Command order(CLI::App& app) {
    struct Asked {
        std::string file;
        std::string out;
        double seconds = 20;
    };
    auto asked = std::make_shared<Asked>();
    auto* command = app.add_subcommand("order", "Print the order of the shots that costs least work");
    command->add_option("FILE", asked->file, "A shoot file (.poquito)")->required();
    command->add_option("--out", asked->out, "Write the shoot in that order to this file");
    command
        ->add_option("--seconds", asked->seconds, "Look no longer than that, and give the best found; 20 if not said")
        ->check(CLI::Range(0.1, 86400.0));
    return {command, [asked] { return order_shots(asked->file, asked->out, asked->seconds); }};
}

Command plans(CLI::App& app) {
    struct Asked {
        std::string file;
        std::string shot;
        std::string out;
        int take = 0;
    };
    auto asked = std::make_shared<Asked>();
    auto* command =
        app.add_subcommand("plan", "Print the whole plans of a shot, one a school, best first, as one JSON object");
    command->add_option("FILE", asked->file, "A shoot file (.poquito)")->required();
    command->add_option("SHOT", asked->shot, "Id of the shot")->required();
    auto* take_option = command->add_option("--take", asked->take, "Write the shoot with this plan, from 1, to --out")
                            ->check(CLI::PositiveNumber);
    auto* out_option = command->add_option("--out", asked->out, "Where that shoot goes");
    take_option->needs(out_option);
    out_option->needs(take_option);
    return {command, [asked] { return print_plans(asked->file, asked->shot, asked->take, asked->out); }};
}

Command bench_run(CLI::App& app) {
    struct Asked {
        std::string file;
        RunRequest run;
    };
    auto asked = std::make_shared<Asked>();
    auto* command = app.add_subcommand(
        "run", "Take a shot on the simulated bench; goes on where its last run in the folder broke off");
    command->add_option("FILE", asked->file, "A shoot file (.poquito)")->required();
    command->add_option("SHOT", asked->run.shot, "Id of the shot")->required();
    command->add_option("FOLDER", asked->run.folder, "Where frames and journal go")->required();
    command->add_option("--book", asked->run.book,
                        "The logbook it is entered in; the one in the user's data folder if not said");
    command->add_flag("--no-book", asked->run.no_book, "Enter it in no logbook");
    command->add_option("--speed", asked->run.speed, "Times as fast as the wall clock")->check(CLI::Range(0.1, 1e6));
    command->add_flag("--tests", asked->run.tests_only, "First, middle and last frame only");
    command->add_option("--width", asked->run.width, "Pixels across of the frames")->check(CLI::Range(24, 6000));
    command->add_flag("--serial", asked->run.serial, "Speak to the simulated rail over a pseudo-terminal");
    command->add_option("--rail", asked->run.device,
                        "A serial line with a motion controller in place of the simulated rail");
    command->add_option("--dialect", asked->run.dialect, "What it understands, as JSON; see docs/motion-protocol.md");
    command->add_option("--trouble", asked->run.mishaps, "Something that goes wrong, such as flash-not-ready@5");
    return {command, [asked] { return run_shot(asked->file, asked->run); }};
}

Command delivery(CLI::App& app) {
    struct Asked {
        std::string file;
        std::string folder;
        bool overwrite = false;
    };
    auto asked = std::make_shared<Asked>();
    auto* command = app.add_subcommand(
        "deliver",
        "Cut the pictures that the shoot's outlets get, from FOLDER/finished and from frames that were taken");
    command->add_option("FILE", asked->file, "A shoot file (.poquito)")->required();
    command->add_option("FOLDER", asked->folder, "Where they go, a folder an outlet")->required();
    command->add_flag("--overwrite", asked->overwrite, "Put them in the place of pictures that are there already");
    return {command, [asked] { return deliver_pictures(asked->file, asked->folder, asked->overwrite); }};
}

Command logbook(CLI::App& app) {
    struct Asked {
        BookRequest book;
    };
    auto asked = std::make_shared<Asked>();
    auto* command = app.add_subcommand("book", "Look things up in the logbook of all shoots, or bring it elsewhere");
    command->add_option("--book", asked->book.path, "The logbook; the one in the user's data folder if not said");
    command->add_option("--words", asked->book.words, "Print what has these words, or words that begin so");
    command->add_option("--export", asked->book.out, "Write all of it to this file, *.json or *.csv");
    command->add_option("--import", asked->book.in, "Bring in entries of this file, *.json or *.csv");
    command->add_option("--forget", asked->book.forget, "Take the entry of this number out for good");
    command->add_flag("--lessons", asked->book.lessons, "Print what it teaches, with cases and intervals");
    return {command, [asked] { return use_book(asked->book); }};
}

Command journal_of_run(CLI::App& app) {
    struct Asked {
        std::string journal;
    };
    auto asked = std::make_shared<Asked>();
    auto* command = app.add_subcommand("log", "Print what a run's journal says was exposed");
    command->add_option("JOURNAL", asked->journal, "A file ending in .journal")->required();
    return {command, [asked] { return show_log(asked->journal); }};
}

Command inspection(CLI::App& app) {
    struct Asked {
        InspectRequest inspect;
    };
    auto asked = std::make_shared<Asked>();
    auto* command = app.add_subcommand(
        "inspect", "Print what is wrong with frames: a stack's, or with --singles each by itself, as one JSON object");
    auto* shoot_option =
        command->add_option("--shoot", asked->inspect.shoot, "A shoot file (.poquito) that plans them");
    auto* shot_option = command->add_option("--shot", asked->inspect.shot, "Id of the shot that they are of");
    shoot_option->needs(shot_option);
    shot_option->needs(shoot_option);
    command->add_option(
        "--book", asked->inspect.book,
        "The logbook that it is entered in, where the shot is known; the one in the user's data folder if not said");
    command->add_flag("--no-book", asked->inspect.no_book, "Enter it in no logbook");
    command->add_flag("--singles", asked->inspect.singles, "Frames by themselves, not one stack");
    auto* watch_flag =
        command->add_flag("--watch", asked->inspect.watch,
                          "FRAMES is a folder: one line of JSON for each frame as it comes, until interrupted");
    command->add_option("--until-quiet", asked->inspect.quiet, "With --watch: end when none came for so many seconds")
        ->check(CLI::PositiveNumber)
        ->needs(watch_flag);
    command->add_option("FRAMES", asked->inspect.frames, "Picture files: JPEG, TIFF, PNG or raw")->required();
    return {command, [asked] { return inspect_frames(asked->inspect); }};
}

Command sun_of_day(CLI::App& app) {
    struct Asked {
        SunRequest sun;
    };
    auto asked = std::make_shared<Asked>();
    auto* command = app.add_subcommand("sun", "Print where the sun stands and what it does that day, as JSON");
    command->add_option("--latitude", asked->sun.latitude, "Degrees north")->required()->check(CLI::Range(-90.0, 90.0));
    command->add_option("--longitude", asked->sun.longitude, "Degrees east")
        ->required()
        ->check(CLI::Range(-180.0, 180.0));
    command->add_option("--date", asked->sun.date, "YYYY-MM-DD")->required();
    command->add_option("--time", asked->sun.time, "HH:MM:SS, local to the offset");
    command->add_option("--utc-offset", asked->sun.utc_offset, "Hours east of UTC; 0 if not said")
        ->check(CLI::Range(-24.0, 24.0));
    return {command, [asked] { return print_sun(asked->sun); }};
}

Command rail(CLI::App& app) {
    struct Asked {
        double travel = 100;
        double speed = 1;
    };
    auto asked = std::make_shared<Asked>();
    auto* command = app.add_subcommand(
        "rail", "Simulate a motion controller; prints the pseudo-terminal to open and serves until interrupted");
    command->add_option("--travel", asked->travel, "mm")->check(CLI::PositiveNumber);
    command->add_option("--speed", asked->speed, "Times as fast as the wall clock")->check(CLI::Range(0.1, 1e6));
    return {command, [asked] { return serve_rail(asked->travel, asked->speed); }};
}

}  // namespace
}  // namespace poquito::cli

int main(int argc, char** argv) {
    using namespace poquito::cli;

    CLI::App app{
        "Computes close-up photographs from a Poquito shoot file.\n"
        "Exit status: 0 done, 1 bad input (one line on standard error names the place), 2 bad usage, 3 a run broke "
        "off and can be gone on with."};
    app.name("poquito-cli");
    app.set_version_flag("--version", "poquito-cli " POQUITO_VERSION, "Print the version");
    app.require_subcommand(1);
    std::vector<Command> commands;
    for (const auto add : {report_on, sheet, stack, order, plans, bench_run, delivery, logbook, journal_of_run,
                           inspection, sun_of_day, rail})
        commands.push_back(add(app));
    try {
        app.parse(argc, argv);
    } catch (const CLI::ParseError& error) {
        return app.exit(error) == 0 ? done : bad_usage;
    }
    const auto asked = std::ranges::find_if(commands, [](const Command& one) { return one.app->parsed(); });
    return checked([&] { return asked->run(); });
}
