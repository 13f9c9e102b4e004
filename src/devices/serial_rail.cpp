#include "devices/serial_rail.hpp"

#include <utility>  // before Boost.Asio 1.74, which uses std::exchange without including it

#include <fmt/format.h>
#include <boost/asio.hpp>

#include <fcntl.h>
#include <termios.h>
#include <unistd.h>

#include <algorithm>
#include <cerrno>
#include <charconv>
#include <chrono>
#include <cmath>
#include <thread>

namespace poquito::devices {
namespace {

namespace asio = boost::asio;

constexpr auto halted_text = "The rail was halted.";

}  // namespace

struct SerialRail::Line {
    asio::io_context context;
    asio::serial_port port{context};
    std::string received;

    enum class End { line, timeout, closed };

    /// One line without its end.
    End read(std::string& line, std::chrono::duration<double> timeout) {
        End end = End::timeout;
        asio::async_read_until(port, asio::dynamic_buffer(received, 4096), '\n',
                               [&](const boost::system::error_code& error, std::size_t length) {
                                   if (error == asio::error::operation_aborted) return;
                                   end = error ? End::closed : End::line;
                                   if (!error) {
                                       line = received.substr(0, length - 1);
                                       received.erase(0, length);
                                   }
                               });
        context.restart();
        context.run_for(std::chrono::duration_cast<std::chrono::milliseconds>(timeout));
        if (!context.stopped()) {
            boost::system::error_code ignored;
            port.cancel(ignored);
            context.run();
        }
        while (!line.empty() && (line.back() == '\r' || line.back() == ' ')) line.pop_back();
        return end;
    }
};

SerialRail::SerialRail(std::string device, MotionDialect dialect)
    : device_(std::move(device)), dialect_(std::move(dialect)) {}

SerialRail::~SerialRail() { close(); }

Done SerialRail::connect() {
    close();
    auto line = std::make_unique<Line>();
    boost::system::error_code error;
    line->port.open(device_, error);
    if (!error) line->port.set_option(asio::serial_port::baud_rate(static_cast<unsigned>(dialect_.baud)), error);
    if (error)
        return Fault{.kind = FaultKind::not_connected,
                     .text = fmt::format("The rail at {} cannot be opened: {}.", device_, error.message())};
    ::fcntl(line->port.native_handle(), F_SETFD, FD_CLOEXEC);
    line_ = std::move(line);
    {
        const std::lock_guard lock(mutex_);
        handle_ = line_->port.native_handle();
        halted_ = false;
    }
    for (const auto& command : dialect_.setup)
        if (auto fault = tell_it(command, dialect_.timeout)) return fault;
    return std::nullopt;
}

void SerialRail::disconnect() { close(); }

void SerialRail::close() {
    {
        const std::lock_guard lock(mutex_);
        handle_ = -1;
    }
    line_.reset();
}

Fault SerialRail::lost() {
    close();
    return {.kind = FaultKind::not_connected, .text = fmt::format("The rail at {} does not answer.", device_)};
}

RailPort::Capabilities SerialRail::capabilities() const {
    return {.travel = dialect_.travel,
            .least_step = dialect_.least_step,
            .backlash = dialect_.backlash,
            .has_home = !dialect_.home.empty(),
            .speed = dialect_.speed,
            .tells_position = !dialect_.where.empty()};
}

/// A whole line, or nothing of it.
Done SerialRail::send(const std::string& command, double timeout, Moves moves) {
    const auto text = command + "\n";
    const auto until = std::chrono::steady_clock::now() + std::chrono::duration<double>(timeout);
    for (;;) {
        {
            const std::lock_guard lock(mutex_);
            if (moves == Moves::yes && halted_) return Fault{.kind = FaultKind::refused, .text = halted_text};
            // The line does not block (Boost.Asio opens it so); a command is far shorter than its buffer.
            const auto written = ::write(handle_, text.data(), text.size());
            if (written == static_cast<ssize_t>(text.size())) return std::nullopt;
            if (written >= 0 || (errno != EAGAIN && errno != EINTR)) break;
        }
        if (std::chrono::steady_clock::now() > until) break;
        std::this_thread::sleep_for(std::chrono::milliseconds(2));
    }
    return lost();
}

Outcome<std::string> SerialRail::ask(const std::string& command, double timeout, Moves moves) {
    if (!line_) return lost();
    // What came unasked, such as the answer to a halt, belongs to no command.
    ::tcflush(line_->port.native_handle(), TCIFLUSH);
    line_->received.clear();
    if (auto fault = send(command, timeout, moves)) return *fault;
    std::string answer;
    const auto until = std::chrono::steady_clock::now() + std::chrono::duration<double>(timeout);
    for (;;) {
        std::string line;
        const auto left = std::chrono::duration<double>(until - std::chrono::steady_clock::now());
        const auto end = line_->read(line, std::max(left, std::chrono::duration<double>(0)));
        if (end == Line::End::closed) return lost();
        if (end == Line::End::timeout)
            return Fault{
                .kind = FaultKind::timed_out,
                .text = fmt::format("The rail gave no answer to \u201c{}\u201d within {:g} s.", command, timeout)};
        if (line == dialect_.ok) return answer;
        if (!dialect_.error.empty() && line.starts_with(dialect_.error))
            return Fault{.kind = FaultKind::refused,
                         .text = fmt::format("The rail refused \u201c{}\u201d: {}", command, line)};
        answer += line + "\n";
    }
}

Done SerialRail::tell_it(const std::string& command, double timeout, Moves moves) {
    const auto answer = ask(command, timeout, moves);
    if (!answer) return answer.error();
    return std::nullopt;
}

Done SerialRail::home() {
    if (auto fault = tell_it(dialect_.home, dialect_.timeout + dialect_.travel / dialect_.speed * 2, Moves::yes))
        return fault;
    at_ = 0;
    return std::nullopt;
}

Done SerialRail::move_to(double position) {
    if (position < -dialect_.least_step / 2 || position > dialect_.travel + dialect_.least_step / 2)
        return Fault{.kind = FaultKind::out_of_travel,
                     .text = fmt::format("The rail goes from 0 to {:g} mm, not to {:.3f}.", dialect_.travel, position)};
    constexpr double per_minute = 60;
    const double time = dialect_.timeout + std::abs(position - at_) / dialect_.speed * 2;
    if (auto fault = tell_it(filled(dialect_.move, position, dialect_.speed * per_minute), time, Moves::yes))
        return fault;
    at_ = position;
    if (!dialect_.finish.empty())
        if (auto fault = tell_it(dialect_.finish, time)) return fault;
    // Some controllers answer a movement that was cut short as one that is done.
    const std::lock_guard lock(mutex_);
    return halted_ ? Done(Fault{.kind = FaultKind::refused, .text = halted_text}) : std::nullopt;
}

Outcome<double> SerialRail::position() {
    const auto answer = ask(dialect_.where, dialect_.timeout);
    if (!answer) return answer.error();
    const auto& text = *answer;
    const auto at = text.find(dialect_.position_after);
    double value = 0;
    if (at != std::string::npos) {
        const char* begin = text.data() + at + dialect_.position_after.size();
        while (*begin == ' ') ++begin;
        if (std::from_chars(begin, text.data() + text.size(), value).ec == std::errc()) return value;
    }
    return Fault{.kind = FaultKind::refused, .text = "The rail did not say where it is."};
}

void SerialRail::halt() {
    const std::lock_guard lock(mutex_);
    halted_ = true;
    if (handle_ < 0 || dialect_.halt.empty()) return;
    const auto line = dialect_.halt + "\n";
    [[maybe_unused]] const auto written = ::write(handle_, line.data(), line.size());
}

}  // namespace poquito::devices
