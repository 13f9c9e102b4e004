#include "shoot/evaluate.hpp"
#include "storage/atomic_file.hpp"
#include "storage/report_json.hpp"
#include "storage/run_sheet.hpp"
#include "storage/shoot_file.hpp"

#include <fmt/format.h>
#include <CLI/CLI.hpp>

#include <cstdio>
#include <vector>

namespace {

using namespace poquito;

enum ExitCode { done = 0, bad_input = 1, bad_usage = 2 };

int complain(const storage::ReadError& error) {
    fmt::print(stderr, "{}\n", storage::message(error));
    return bad_input;
}

std::vector<shoot::Report> evaluate_all(const shoot::Shoot& shoot) {
    std::vector<shoot::Report> reports;
    for (const auto& shot : shoot.shots) reports.push_back(shoot::evaluate(shoot.kit, shot));
    return reports;
}

int report(const shoot::Shoot& shoot) {
    const std::string text = storage::write_report(evaluate_all(shoot));
    const bool written = std::fwrite(text.data(), 1, text.size(), stdout) == text.size() && std::fflush(stdout) == 0;
    return written ? done : complain({"standard output", "cannot write the report"});
}

int sheet(const shoot::Shoot& shoot, const std::string& out) {
    if (const auto error = storage::replace_file(out, storage::run_sheet_html(shoot, evaluate_all(shoot))))
        return complain(*error);
    return done;
}

}  // namespace

int main(int argc, char** argv) {
    CLI::App app{
        "Computes close-up photographs from a Poquito shoot file.\n"
        "Exit status: 0 done, 1 bad input (one line on standard error names the place), 2 bad usage."};
    app.name("poquito-cli");
    app.set_version_flag("--version", "poquito-cli " POQUITO_VERSION, "Print the version");
    app.require_subcommand(1);

    std::string file;
    std::string out;
    auto* report_command = app.add_subcommand("report", "Print what every shot comes to, as one JSON object");
    report_command->add_option("FILE", file, "A shoot file (.poquito)")->required();
    auto* sheet_command = app.add_subcommand(
        "sheet", "Write the run sheet as HTML; for PDF use the desktop: poquito --sheet OUT.pdf FILE");
    sheet_command->add_option("FILE", file, "A shoot file (.poquito)")->required();
    sheet_command->add_option("OUT", out, "Where the sheet goes, *.html")
        ->required()
        ->check([](const std::string& name) {
            return name.ends_with(".html") ? std::string() : name + ": expected a name ending in .html";
        });
    try {
        app.parse(argc, argv);
    } catch (const CLI::ParseError& error) {
        return app.exit(error) == 0 ? done : bad_usage;
    }

    auto loaded = storage::load_shoot(file);
    if (const auto* error = std::get_if<storage::ReadError>(&loaded)) return complain(*error);
    const auto& shoot = std::get<shoot::Shoot>(loaded);
    return report_command->parsed() ? report(shoot) : sheet(shoot, out);
}
