#include "storage/picture_plan.hpp"

#include "picture_process.hpp"
#include "plan_tag.hpp"
#include "shoot/change/edit.hpp"

#include <exiv2/exiv2.hpp>

#include <mutex>

namespace poquito::storage {
namespace {

constexpr const char* name_space = "https://poquito.invalid/plan/1.0/";
constexpr const char* prefix = "poquito";
}  // namespace

std::unique_lock<std::mutex> xmp_toolkit() {
    static std::mutex mutex;
    std::unique_lock lock(mutex);
    static const bool ready = [] {
        Exiv2::LogMsg::setLevel(Exiv2::LogMsg::mute);
        Exiv2::XmpParser::initialize();
        Exiv2::XmpProperties::registerNs(name_space, prefix);
        return true;
    }();
    static_cast<void>(ready);
    return lock;
}

namespace {

auto opened(const std::string& bytes) {
    return Exiv2::ImageFactory::open(reinterpret_cast<const Exiv2::byte*>(bytes.data()),
                                     static_cast<long>(bytes.size()));
}

}  // namespace

text::Expected<std::string> png_with_plan(const std::string& png, const shoot::Shoot& shoot, std::size_t shot) {
    const auto lock = xmp_toolkit();
    try {
        auto image = opened(png);
        Exiv2::XmpData xmp;
        xmp[plan_key] = write_shoot(shoot::alone(shoot, shot));
        xmp["Xmp.dc.title"] = shoot.shots[shot].name;
        xmp["Xmp.xmp.CreatorTool"] = std::string("Poquito");
        image->setXmpData(xmp);
        image->writeMetadata();
        Exiv2::BasicIo& io = image->io();
        if (io.open() != 0) return text::Error{.place = {}, .problem = "the picture could not be put together"};
        const Exiv2::DataBuf all = io.read(static_cast<long>(io.size()));
        return std::string(reinterpret_cast<const char*>(all.pData_), static_cast<std::size_t>(all.size_));
    } catch (const Exiv2::Error& error) {
        return text::Error{.place = {},
                           .problem = std::string("the plan does not go into this picture: ") + error.what()};
    }
}

text::Expected<shoot::Shoot> plan_in_picture(const std::string& bytes) {
    std::string plan;
    try {
        plan = plan_apart(bytes);
    } catch (...) {
        return text::Error{.place = {}, .problem = "not a picture that can be read, expected a PNG that Poquito saved"};
    }
    if (plan.empty())
        return text::Error{.place = {}, .problem = "no plan in this picture, expected one that Poquito saved"};
    auto read = read_shoot(plan);
    if (!read) {
        read.error().place = read.error().place.empty() ? "plan" : "plan: " + read.error().place;
        return read;
    }
    if (read->shots.size() != 1) return text::Error{.place = "plan: shots", .problem = "expected exactly one shot"};
    return read;
}

}  // namespace poquito::storage
