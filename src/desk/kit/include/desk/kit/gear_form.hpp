#pragma once

#include "desk/session/document.hpp"
#include "gear/rows.hpp"

#include <QWidget>

#include <functional>
#include <vector>

class QGridLayout;
class QLabel;
class QLineEdit;
class QVBoxLayout;

namespace poquito::desk {

class GearPicture;

/// One piece of gear as a form made from the rows of gear/rows.hpp. What does not fit its member is refused at the
/// field; what does not fit another member is refused below, and the record stays as it was.
class GearForm : public QWidget {
    Q_OBJECT
  public:
    explicit GearForm(QWidget* parent = nullptr);

    /// `index` below 0: nothing.
    void show(Document& document, const gear::GearKind& kind, int index);
    void refresh();

  Q_SIGNALS:
    void shotsFitted(const QStringList& names);  // shots that had to follow a change

  private:
    void build();
    void addField(const gear::GearField& field, QGridLayout* grid);
    void addTable(const gear::GearTable& table, QVBoxLayout* column);
    void addCalibrations(QVBoxLayout* column);
    /// An edit of the record that is kept only if the record is sound afterwards.
    void change(const QString& label, const QString& mergeKey, const std::function<void(gear::Kit&, std::size_t)>& act);

    Document* document_ = nullptr;
    const gear::GearKind* kind_ = nullptr;
    int index_ = -1;
    QMetaObject::Connection connection_;
    QWidget* body_ = nullptr;
    GearPicture* picture_ = nullptr;
    QLineEdit* name_ = nullptr;
    QLabel* problem_ = nullptr;
    std::vector<std::function<void()>> bindings_;
};

}  // namespace poquito::desk
