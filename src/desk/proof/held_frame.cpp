#include "desk/proof/held_frame.hpp"

#include "desk/text/to_qt.hpp"

namespace poquito::desk {

HeldFrame::HeldFrame(FramePictures& pictures, FrameView& beside, QWidget* parent)
    : FrameView(parent), pictures_(pictures), beside_(beside) {
    setObjectName(QStringLiteral("heldFrame"));
    setAccessibleName(tr("The frame that is held beside it"));
    hide();
    connect(&beside, &FrameView::looked, this, [this] { follow(beside_); });
    connect(this, &FrameView::looked, &beside, [this] { beside_.follow(*this); });
    connect(this, &FrameView::pixelsWanted, this, [this] {
        if (holds()) pictures_.picture(file_, FramePictures::Kind::pixels);
    });
    connect(&pictures, &FramePictures::arrived, this, [this](const QString& file) {
        if (holds() && toQt(file_.string()) == file) showPicture();
    });
}

void HeldFrame::hold(const std::filesystem::path& file, QSize size, const QString& caption) {
    file_ = file;
    size_ = size;
    setCaption(caption);
    show();
    showPicture();
    follow(beside_);
}

void HeldFrame::letGo() {
    file_.clear();
    hide();
}

void HeldFrame::showPicture() {
    QImage image = pictures_.picture(file_, FramePictures::Kind::preview);
    if (!isWhole() && image.width() < size_.width())
        if (const auto pixels = pictures_.picture(file_, FramePictures::Kind::pixels); !pixels.isNull()) image = pixels;
    setPicture(image, size_.isEmpty() ? image.size() : size_, tr("Read\u2026"));
}

}  // namespace poquito::desk

#include "desk/proof/moc_held_frame.moc"
