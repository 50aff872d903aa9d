#pragma once

class QWidget;

namespace sober::app {

/// Whenever a part gets the focus, one of its own has it from then on; said again, another one. Unlike Qt's
/// focus proxy this leaves Tab free to go to all of the part: from a proxy it leaves the part it stands for.
void handFocusOn(QWidget* part, QWidget* to);

} // namespace sober::app
