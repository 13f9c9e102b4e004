#pragma once

#include "desk/session/bag.hpp"
#include "gear/rows.hpp"

#include <QWidget>

class QButtonGroup;
class QBoxLayout;
class QLabel;
class QListView;
class QPushButton;
class QStringListModel;
class QTableView;

namespace poquito::desk {

class GearForm;
class GearModel;

/// The bag and the shoot's own copy of it: add, change, duplicate and remove gear of every kind, take it from the
/// catalogue, import and export it.
class KitRoom : public QWidget {
    Q_OBJECT
  public:
    enum class Side { bag, shoot };

    KitRoom(Document& shoot, Bag& bag, QWidget* parent = nullptr);

    void look(Side side, std::string_view list);

    /// Without questions. What went wrong is said in the room. True: it is done.
    bool importFrom(const QString& path);
    bool exportTo(const QString& path);

    Document& document();  // of the side that is shown

  Q_SIGNALS:
    void sideShown();

  private:
    QWidget* buildKinds();
    QWidget* buildPieces();
    QWidget* buildForm();
    QPushButton* addButton(QBoxLayout* row, const char* name, const QString& label, const QString& tip,
                           void (KitRoom::*run)());
    const gear::GearKind& kind() const;
    std::optional<std::size_t> current() const;
    void showKinds();
    void showKind();
    void showPiece();
    void select(std::size_t index);
    void say(const QString& text, bool problem = false);

    void addNew();
    void duplicate();
    void removePiece();
    std::optional<std::string> askReplacement(std::size_t index, const QStringList& users);
    void copyAcross();
    void showCatalogue();
    void takeFromCatalogue(std::size_t index);
    void askImport();
    void askExport();

    Document& shoot_;
    Bag& bag_;
    Side side_ = Side::bag;
    gear::Kit catalogue_;
    QPushButton* bagButton_ = nullptr;
    QPushButton* shootButton_ = nullptr;
    QListView* kinds_ = nullptr;
    QStringListModel* kindNames_ = nullptr;
    QTableView* pieces_ = nullptr;
    GearModel* model_ = nullptr;
    GearForm* form_ = nullptr;
    QLabel* message_ = nullptr;
    QPushButton* duplicate_ = nullptr;
    QPushButton* remove_ = nullptr;
    QPushButton* across_ = nullptr;
    QPushButton* catalogueButton_ = nullptr;
};

}  // namespace poquito::desk
