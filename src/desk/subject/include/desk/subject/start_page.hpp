#pragma once

#include "desk/session/document.hpp"

#include <QFrame>

#include <functional>

class QButtonGroup;
class QComboBox;
class QCheckBox;
class QLabel;
class QPushButton;
class QToolButton;
class QVBoxLayout;

namespace poquito::desk {

class Bag;
class ChoiceChips;
class SpecimenBoard;
class SubjectLibrary;

/// How a shot begins: what it is, where, for what and with what. Every answer is an edit of the shot, so that cards and
/// numbers beside it show what it does; each can be left out, and all of it left at any point. It ends on the whole
/// plans. On an empty shoot it is the first page, with the doors to other shoots beside it.
class StartPage : public QFrame {
    Q_OBJECT
  public:
    /// `bag` gets what is taken from the catalogue as well; it is asked for when it is first needed.
    StartPage(Document& document, SubjectLibrary& library, std::function<Bag&()> bag, QWidget* parent = nullptr);

    void refresh();
    void setRecent(const QStringList& paths);

  Q_SIGNALS:
    void shotWanted();  // an empty shoot needs one before it can be edited
    void plansWanted();
    void left();  // to the stations
    void openWanted();
    void demoWanted();
    void fileWanted(const QString& path);

  protected:
    void showEvent(QShowEvent* event) override;

  private:
    struct Answer {
        QToolButton* button;
        std::function<bool(const shoot::Shot&)> given;
    };
    void addWhat(QVBoxLayout* column);
    void addWhere(QVBoxLayout* column);
    void addForWhat(QVBoxLayout* column);
    void addLook(QVBoxLayout* column);
    void addWithWhat(QVBoxLayout* column);
    void addEnd(QVBoxLayout* column);
    QWidget* doors();
    QToolButton* answer(QLayout* row, QButtonGroup* group, const char* name, const QString& label, const QString& tip,
                        const std::function<void(shoot::Shoot&, shoot::Shot&)>& change,
                        const std::function<bool(const shoot::Shot&)>& given);
    QComboBox* gear(QLayout* row, const char* name, const QString& label, std::string_view list,
                    std::function<std::string(const shoot::Shot&)> given);
    void fillGear(QComboBox* box, std::string_view list, const std::string& chosen);
    void takeGear(std::string_view list, const std::string& id);
    void take(const std::string& subject);
    void edit(const QString& text, const std::function<void(shoot::Shoot&, shoot::Shot&)>& change);

    Document& document_;
    SubjectLibrary& library_;
    std::function<Bag&()> bag_;
    gear::Kit catalogue_;
    ChoiceChips* kinds_ = nullptr;
    std::string kind_;
    SpecimenBoard* board_ = nullptr;
    std::vector<Answer> answers_;
    QCheckBox* square_ = nullptr;
    struct GearBox {
        QComboBox* box;
        std::string_view list;
        std::function<std::string(const shoot::Shot&)> given;
    };
    std::vector<GearBox> gear_;
    QLabel* heading_ = nullptr;
    QPushButton* plans_ = nullptr;
    QWidget* doors_ = nullptr;
    QVBoxLayout* recent_ = nullptr;
};

}  // namespace poquito::desk
