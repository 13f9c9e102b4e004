#pragma once

#include "desk/pages/station_page.hpp"
#include "shoot/limits.hpp"

class QPushButton;

namespace poquito::desk {

class Sentence;
class WishesTab;

/// What has to be sharp, what it is to look like, what it is for, and how far one goes.
class MattersTab : public StationPage {
    Q_OBJECT
  public:
    explicit MattersTab(Document& document, QWidget* parent = nullptr);

  Q_SIGNALS:
    void limitsKept(const shoot::Limits& limits);

  protected:
    void showShot(const Shot& shot, const plan::Report& report) override;

  private:
    void addZone(QVBoxLayout* column);
    void addPurpose(QVBoxLayout* column);
    void addLimits(QVBoxLayout* column);
    void addTraits(QVBoxLayout* column);
    double shownFactor(std::optional<double> shoot::Limits::*member);

    struct LimitRow {
        QCheckBox* on;
        QuantityField* field;
        std::optional<double> shoot::Limits::*member;
    };
    std::vector<LimitRow> limits_;
    QuantityField *from_ = nullptr, *to_ = nullptr, *rest_ = nullptr, *purposeSize_ = nullptr;
    QCheckBox *restSoft_ = nullptr, *ownLimits_ = nullptr;
    QComboBox* purpose_ = nullptr;
    Sentence* zoneSays_ = nullptr;
    WishesTab* wishes_ = nullptr;
};

}  // namespace poquito::desk
