#include "devices/sim/motion_controller.hpp"

#include <fmt/format.h>

#include <fcntl.h>
#include <poll.h>
#include <termios.h>
#include <unistd.h>

#include <chrono>
#include <cstdlib>
#include <future>
#include <optional>

namespace poquito::devices {
namespace {

/// The number behind a letter: "G1 X2.5 F120", 'X'.
std::optional<double> word(const std::string& command, char letter) {
    for (std::size_t i = 0; i < command.size(); ++i)
        if (command[i] == letter && (i == 0 || command[i - 1] == ' ')) {
            const char* begin = command.c_str() + i + 1;
            char* end = nullptr;
            const double value = std::strtod(begin, &end);
            if (end != begin) return value;
        }
    return std::nullopt;
}

}  // namespace

MotionController::MotionController(RailPort& rail) : rail_(rail) {
    master_ = ::posix_openpt(O_RDWR | O_NOCTTY | O_CLOEXEC);
    if (master_ < 0 || ::grantpt(master_) != 0 || ::unlockpt(master_) != 0) return;
    char name[128];
    if (::ptsname_r(master_, name, sizeof name) != 0) return;
    // As a serial line is: no echo, no lines put together by the terminal.
    termios settings{};
    if (::tcgetattr(master_, &settings) == 0) {
        ::cfmakeraw(&settings);
        ::tcsetattr(master_, TCSANOW, &settings);
    }
    device_ = name;
    rail_.connect();
    thread_ = std::thread([this] { serve(); });
}

MotionController::~MotionController() {
    quit_ = true;
    rail_.halt();
    if (thread_.joinable()) thread_.join();
    if (master_ >= 0) ::close(master_);
}

void MotionController::unplug() {
    quit_ = true;
    rail_.halt();
    if (thread_.joinable()) thread_.join();
    if (master_ >= 0) ::close(master_);
    master_ = -1;
}

bool MotionController::read_more() {
    pollfd waiting{.fd = master_, .events = POLLIN, .revents = 0};
    if (::poll(&waiting, 1, 20) <= 0) return false;
    char bytes[256];
    const auto count = ::read(master_, bytes, sizeof bytes);
    if (count <= 0) {  // nobody has it open just now
        ::usleep(2000);
        return false;
    }
    received_.append(bytes, static_cast<std::size_t>(count));
    return true;
}

void MotionController::serve() {
    while (!quit_) {
        read_more();
        for (auto end = received_.find('\n'); end != std::string::npos; end = received_.find('\n')) {
            auto command = received_.substr(0, end);
            received_.erase(0, end + 1);
            while (!command.empty() && (command.back() == '\r' || command.back() == ' ')) command.pop_back();
            if (command.empty()) continue;
            const auto reply = answer(command);
            if (silent_) continue;
            [[maybe_unused]] const auto written = ::write(master_, reply.data(), reply.size());
        }
    }
}

std::string MotionController::moved(const std::function<Done()>& move) {
    bool halted = false;
    auto done = std::async(std::launch::async, move);
    while (done.wait_for(std::chrono::seconds(0)) != std::future_status::ready) {
        read_more();
        if (const auto halt = received_.find("M410\n"); halt != std::string::npos) {
            received_.erase(halt, 5);
            rail_.halt();
            halted = true;
        }
    }
    const auto fault = done.get();
    // A controller that was halted takes the next command; that nobody sends one, the port sees to.
    if (halted) rail_.connect();
    return fault ? "error: " + fault->text + "\n" : "ok\n";
}

std::string MotionController::answer(const std::string& command) {
    const auto refused = [](const Fault& fault) { return "error: " + fault.text + "\n"; };
    const auto code = command.substr(0, command.find(' '));
    if (code == "G21") rail_.connect();  // how a session begins: what had dropped is plugged in again
    if (code == "G21" || code == "G90" || code == "M400" || code == "M410") return "ok\n";
    if (code == "G28") return moved([this] { return rail_.home(); });
    if (code == "G0" || code == "G1") {
        const auto to = word(command, 'X');
        if (!to) return "error: no X in " + command + "\n";
        return moved([this, to = *to] { return rail_.move_to(to); });
    }
    if (code == "M114") {
        const auto at = rail_.position();
        if (!at) return refused(at.error());
        return fmt::format("X:{:.4f}\nok\n", *at);
    }
    return "error: unknown command " + code + "\n";
}

}  // namespace poquito::devices
