#pragma once

#include "desk/pages/station_page.hpp"

namespace poquito::desk {

class Tabs;
class SubjectTab;
class SubjectLibrary;

/// What is photographed, what matters about it, and whole plans to take it.
class SubjectPage : public StationPage {
    Q_OBJECT
  public:
    SubjectPage(Document& document, SubjectLibrary& library, QWidget* parent = nullptr);

    /// A grey picture becomes the subject's form; false, with a problem said, where it cannot.
    bool loadHeightMap(const QString& path);

    void showPlans();  // turns to the whole plans

  Q_SIGNALS:
    void problemFound(const QString& problem);
    void limitsKept(const shoot::Limits& limits);  // as the person's own

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    Tabs* tabs_;
    SubjectTab* subject_;
};

}  // namespace poquito::desk
