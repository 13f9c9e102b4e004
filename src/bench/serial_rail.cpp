#include "bench/serial_rail.hpp"

#include <utility>  // before Boost.Asio 1.74, which uses std::exchange without including it

#include <fmt/format.h>
#include <boost/asio.hpp>

#include <termios.h>
#include <unistd.h>

#include <algorithm>
#include <charconv>
#include <chrono>
#include <cmath>

namespace poquito::bench {
namespace {

namespace asio = boost::asio;

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

SerialRail::~SerialRail() = default;

Done SerialRail::connect() {
    auto line = std::make_unique<Line>();
    boost::system::error_code error;
    line->port.open(device_, error);
    if (!error) line->port.set_option(asio::serial_port::baud_rate(static_cast<unsigned>(dialect_.baud)), error);
    if (error)
        return Fault{.kind = FaultKind::not_connected,
                     .text = fmt::format("The rail at {} cannot be opened: {}.", device_, error.message())};
    handle_ = line->port.native_handle();
    line_ = std::move(line);
    for (const auto& command : dialect_.setup)
        if (auto fault = tell_it(command, dialect_.timeout)) return fault;
    return std::nullopt;
}

void SerialRail::disconnect() {
    handle_ = -1;
    line_.reset();
}

RailPort::Capabilities SerialRail::capabilities() const {
    return {.travel = dialect_.travel,
            .least_step = dialect_.least_step,
            .backlash = dialect_.backlash,
            .has_home = !dialect_.home.empty()};
}

Outcome<std::string> SerialRail::ask(const std::string& command, double timeout) {
    const auto lost = [&] {
        line_.reset();
        return Fault{.kind = FaultKind::not_connected, .text = fmt::format("The rail at {} does not answer.", device_)};
    };
    if (!line_) return lost();
    // What came unasked, such as the answer to a halt, belongs to no command.
    ::tcflush(line_->port.native_handle(), TCIFLUSH);
    line_->received.clear();
    boost::system::error_code error;
    asio::write(line_->port, asio::buffer(command + "\n"), error);
    if (error) return lost();
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

Done SerialRail::tell_it(const std::string& command, double timeout) {
    const auto answer = ask(command, timeout);
    if (const auto* fault = std::get_if<Fault>(&answer)) return *fault;
    return std::nullopt;
}

Done SerialRail::home() {
    if (auto fault = tell_it(dialect_.home, dialect_.timeout + dialect_.travel / dialect_.speed * 2)) return fault;
    at_ = 0;
    return std::nullopt;
}

Done SerialRail::move_to(double position) {
    if (position < -dialect_.least_step / 2 || position > dialect_.travel + dialect_.least_step / 2)
        return Fault{.kind = FaultKind::out_of_travel,
                     .text = fmt::format("The rail goes from 0 to {:g} mm, not to {:.3f}.", dialect_.travel, position)};
    constexpr double per_minute = 60;
    const double time = dialect_.timeout + std::abs(position - at_) / dialect_.speed * 2;
    if (auto fault = tell_it(filled(dialect_.move, position, dialect_.speed * per_minute), time)) return fault;
    at_ = position;
    if (dialect_.finish.empty()) return std::nullopt;
    return tell_it(dialect_.finish, time);
}

Outcome<double> SerialRail::position() {
    const auto answer = ask(dialect_.where, dialect_.timeout);
    if (const auto* fault = std::get_if<Fault>(&answer)) return *fault;
    const auto& text = std::get<std::string>(answer);
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
    // The reading thread owns the port; a line this short is written whole.
    const int handle = handle_;
    if (handle < 0 || dialect_.halt.empty()) return;
    const auto line = dialect_.halt + "\n";
    [[maybe_unused]] const auto written = ::write(handle, line.data(), line.size());
}

}  // namespace poquito::bench
