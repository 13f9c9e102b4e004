#pragma once

#include "imaging/inspect/grey_image.hpp"
#include "imaging/raster.hpp"
#include "optics/depth.hpp"
#include "plan/motion/frame_draws.hpp"
#include "plan/plan.hpp"
#include "plan/report.hpp"
#include "render/cast.hpp"
#include "render/shadow.hpp"

#include <cstdint>
#include <functional>
#include <memory>
#include <optional>
#include <vector>

/// What stands in front of the camera, as pictures are made from it. Places are mm on the sensor from the middle of the
/// frame, x to the right and y up as the picture shows them.
namespace poquito::render {

/// What a ray meets.
struct Fragment {
    float depth = 0;  // mm behind the plane of focus, negative: in front of it
    imaging::Rgba albedo = imaging::Rgba::Zero();
    imaging::Rgba normal = {0, 0, -1, 0};  // towards the camera, of length 1
    float x = 0;  // mm from its thing's middle, to the right and up: where it lies in its shadows
    float y = 0;
    std::uint16_t thing = 0;  // 0: the subject; from 1 on what stands beside it
};

/// What blurs: the same pupil, working f-number and wavelength that the report is made from.
struct LensBlur {
    optics::Imaging imaging;
    double wavelength = optics::default_wavelength;
};
/// Diameter at the sensor, mm, of what a point at that depth makes by defocus alone; a wide disc where there is none.
double blur_disc(const LensBlur& lens, double depth);
/// The depth on that side of the plane of focus (behind it, or in front) where the disc is `diameter` mm wide; empty
/// where it never is.
std::optional<double> depth_of_disc(const LensBlur& lens, double diameter, bool behind);

/// A bright point in the background.
struct Highlight {
    imaging::Place place;
    imaging::Rgba flux = imaging::Rgba::Zero();  // light times mm^2 at the sensor
};

/// One source of light on the subject: how much it gives to a face turned towards it, and from where.
struct SceneLight {
    float amount = 0;                       // relative to a correct exposure
    imaging::Rgba tint = {1, 1, 1, 0};      // its colour as the camera shows it, of luminance 1
    imaging::Rgba towards = {0, 0, -1, 0};  // from the subject, of length 1; x right, y up, z away from the camera
    float softness = 0;                     // sine of half the angle it is wide: 0 a point, 1 the whole sky
    std::shared_ptr<const Shadows> shadows = nullptr;         // of the subject on itself
    std::vector<std::shared_ptr<const Shadows>> others = {};  // of each other thing on itself
    bool through = false;                                     // comes out of the subject: nothing mirrors it
    std::shared_ptr<const Casters> casters = nullptr;         // what stands on the table; null: the subject alone
    float distance = 0;                                       // mm from the subject's centre; 0: far away

    float spread() const;  // tangent of half the angle that it is wide, of the whole sky as of one of 140 degrees
};
/// What one source gives to a place, mm as Casters has them, of what it would give to the subject's centre: more where
/// it is nearer, less behind things. `own`: the thing that the place is on.
float reaching(const SceneLight& light, std::size_t own, const imaging::Rgba& place);

struct Scene {
    LensBlur lens;
    double frame_width = 36;  // mm at the sensor
    double frame_height = 24;
    double pixel_pitch = 0.006;  // mm
    double motion = 0;           // mm along x that the subject is drawn out by
    double fall = 0;             // and along y, of what falls
    double nearest = 0;          // depths of the subject from the plane of focus
    double farthest = 0;
    /// `detail`: width at the sensor of the finest texture to put in, mm.
    std::function<std::optional<Fragment>(imaging::Place place, double detail)> subject;
    std::vector<SceneLight> lights;
    float gloss = 0;  // share of the light that a polished face of the subject mirrors
    double background_depth = 0;
    std::function<imaging::Rgba(imaging::Place place)> background;  // light, before blur; empty: nothing there
    std::vector<Highlight> highlights;
    /// Equal where `subject` gives the same everywhere: what a renderer may keep from one frame to the next.
    std::vector<double> subject_key;
};

/// The plan as a scene; empty where it is focused at infinity and nothing has a size.
std::optional<Scene> scene_of(const plan::Plan& plan, const plan::Report& report);
std::optional<Scene> scene_of(const gear::Kit& kit, const shoot::Shot& shot, const plan::Report& report);

/// One try of it as draw has it: what comes through, what does not fire. Unlit by flash it is exposed by what else
/// there is; else all is as it was worked out.
std::optional<Scene> scene_of_try(const plan::Plan& plan, const plan::Report& report, const plan::FrameDraw& draw);

/// Puts the subject elsewhere in the picture, mm at the sensor; x right, y up.
void put_aside(Scene& scene, imaging::Place by);

/// The middle of a window of that size, mm at the sensor, in which the subject lies nearest to the plane of focus all
/// over; the middle of the frame where none is on it.
imaging::Place place_in_focus(const Scene& scene, double width, double height);

/// How a source of amount 1 lights a fragment.
struct Lit {
    float diffuse = 0;
    float shine = 0;  // mirrored; only where there is gloss
};
Lit lit_by(const SceneLight& light, float gloss, const Fragment& fragment);
/// What all lights of a scene come to on a fragment, each in its colour.
struct LitInColour {
    imaging::Rgba diffuse = imaging::Rgba::Zero();
    imaging::Rgba shine = imaging::Rgba::Zero();
    void add(const SceneLight& light, const Lit& lit) {
        diffuse += light.tint * (light.amount * lit.diffuse);
        shine += light.tint * (light.amount * lit.shine);
    }
};
/// Light sent to the camera by what so lights a surface of that albedo.
inline imaging::Rgba sent(float gloss, const imaging::Rgba& albedo, const LitInColour& lit) {
    return albedo * lit.diffuse * (1 - gloss) + gloss * lit.shine;
}
/// Of all lights of the scene.
imaging::Rgba lit(const Scene& scene, const Fragment& fragment);

/// The place of a point of the subject in the picture, and back. Points as shoot::Surface gives them.
class Viewpoint {
  public:
    explicit Viewpoint(const plan::Plan& plan);
    /// For a thing whose middle has the plane of focus so far behind it, mm, and that is so deep.
    Viewpoint(const plan::Plan& plan, double focus, double depth);
    shoot::ViewRay ray(imaging::Place place) const;
    imaging::Place place(const shoot::Point3& point) const;

  private:
    double magnification_ = 1;
    double focus_ = 0;         // mm behind the middle of the subject's depth
    double per_distance_ = 0;  // one over the distance from entrance pupil to plane of focus
};

}  // namespace poquito::render
