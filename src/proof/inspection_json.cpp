#include "proof/inspection_json.hpp"

#include "storage/json_number.hpp"
#include "text/stored_path.hpp"

namespace poquito::proof {
namespace {

using Json = nlohmann::ordered_json;
using storage::json_number;

const char* level_text(Level level) {
    constexpr const char* levels[] = {"info", "caution", "stop"};
    return levels[static_cast<int>(level)];
}

Json written(const std::vector<Finding>& findings) {
    Json list = Json::array();
    for (const Finding& finding : findings) {
        Json one = {{"code", code_text(finding.code)}, {"level", level_text(finding.level)}, {"text", finding.text}};
        if (const auto& place = finding.place)
            one["place"] = {
                {"x_px", place->x}, {"y_px", place->y}, {"width_px", place->width}, {"height_px", place->height}};
        list.push_back(std::move(one));
    }
    return list;
}

/// What the camera did not say is null.
Json said(double value) { return value > 0 ? json_number(value) : Json(nullptr); }

Json written(const FrameFacts& frame) {
    Json one = {{"file", text::StoredPath(frame.file).text()},
                {"f_number", said(frame.exif.f_number)},
                {"shutter_s", said(frame.exif.shutter)},
                {"iso", said(frame.exif.iso)}};
    const auto& scan = frame.scan;
    one["median_stops"] = scan ? json_number(scan->median_stops) : Json(nullptr);
    one["clipped_share"] = scan ? json_number(scan->clipped_share) : Json(nullptr);
    one["black_share"] = scan ? json_number(scan->black_share) : Json(nullptr);
    one["sharpness"] = scan ? json_number(frame.sharpness) : Json(nullptr);
    one["findings"] = written(frame.findings);
    return one;
}

Json written(const StackFacts& stack) {
    Json gaps = Json::array(), moved = Json::array(), uneven = Json::array();
    for (const Gap& gap : stack.gaps) gaps.push_back({{"after_frame", gap.after_frame}});
    for (const Moved& one : stack.moved)
        moved.push_back(
            {{"frame", one.frame}, {"shift_px", json_number(one.shift)}, {"turn_deg", json_number(one.turn)}});
    for (const Uneven& one : stack.uneven) uneven.push_back({{"frame", one.frame}, {"stops", json_number(one.stops)}});
    return {{"first_end_open", stack.first_end_open},
            {"last_end_open", stack.last_end_open},
            {"gaps", std::move(gaps)},
            {"moved", std::move(moved)},
            {"uneven", std::move(uneven)},
            {"order", stack.order},
            {"missing", stack.missing},
            {"findings", written(stack.findings)}};
}

}  // namespace

std::string frame_json(const FrameFacts& frame) {
    return written(frame).dump(-1, ' ', false, Json::error_handler_t::replace);
}

std::string stack_json(const Inspection& inspection) {
    const Json document = {{"stack", inspection.stack ? written(*inspection.stack) : Json(nullptr)},
                           {"verdict", verdict_text(inspection.verdict)}};
    return document.dump(-1, ' ', false, Json::error_handler_t::replace);
}

std::string inspection_json(const Inspection& inspection) {
    Json frames = Json::array();
    for (const FrameFacts& frame : inspection.frames) frames.push_back(written(frame));
    const Json document = {{"format", "poquito-inspection"},
                           {"frames", std::move(frames)},
                           {"stack", inspection.stack ? written(*inspection.stack) : Json(nullptr)},
                           {"verdict", verdict_text(inspection.verdict)}};
    return document.dump(2, ' ', false, Json::error_handler_t::replace) + '\n';
}

}  // namespace poquito::proof
