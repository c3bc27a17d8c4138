// app/shipped_files.h
//
// Where what comes with the program lies: beside it under share/armure where it is installed, in the source where it
// was built. Looked for when it runs, so that a program that was moved still finds it.
#pragma once

#include <QString>

namespace armure {

// A folder of them, "demo" for one; empty where there is none.
QString shippedFolder(const QString& name);

}  // namespace armure
