#include "render/layered_pdf.h"

#include <memory>
#include <qpdf/QPDF.hh>
#include <qpdf/QPDFPageDocumentHelper.hh>
#include <qpdf/QPDFPageObjectHelper.hh>
#include <qpdf/QPDFWriter.hh>

namespace armure {
namespace {

// A dictionary within another, made where it is not there; the page's own, not one shared with other pages.
QPDFObjectHandle within(QPDFObjectHandle parent, const std::string& key) {
  QPDFObjectHandle child = parent.getKey(key);
  child = child.isDictionary() ? child.shallowCopy() : QPDFObjectHandle::newDictionary();
  parent.replaceKey(key, child);
  return child;
}

std::unique_ptr<QPDF> opened(const std::string& pdf) {
  auto file = std::make_unique<QPDF>();
  file->processMemoryFile("print", pdf.data(), pdf.size());
  return file;
}

}  // namespace

std::string layeredPdf(const std::string& base, const std::vector<PdfLayer>& layers) {
  const std::unique_ptr<QPDF> out = opened(base);
  std::vector<QPDFPageObjectHelper> pages = QPDFPageDocumentHelper(*out).getAllPages();
  // What is drawn next begins with nothing set by the page before it.
  for (QPDFPageObjectHelper& page : pages) {
    page.addPageContents(QPDFObjectHandle::newStream(out.get(), "q\n"), true);
    page.addPageContents(QPDFObjectHandle::newStream(out.get(), "Q\n"), false);
  }
  QPDFObjectHandle groups = QPDFObjectHandle::newArray();
  std::vector<std::unique_ptr<QPDF>> files;  // what is copied of them is read when `out` is written
  for (size_t k = 0; k < layers.size(); ++k) {
    files.push_back(opened(layers[k].pdf));
    QPDFObjectHandle group = QPDFObjectHandle::newDictionary();
    group.replaceKey("/Type", QPDFObjectHandle::newName("/OCG"));
    group.replaceKey("/Name", QPDFObjectHandle::newUnicodeString(std::string(layers[k].name)));
    group = out->makeIndirectObject(group);
    groups.appendItem(group);
    const std::string name = "/ArmureLayer" + std::to_string(k + 1);
    std::vector<QPDFPageObjectHelper> of = QPDFPageDocumentHelper(*files.back()).getAllPages();
    for (size_t i = 0; i < pages.size() && i < of.size(); ++i) {
      QPDFObjectHandle page = pages[i].getObjectHandle();
      QPDFObjectHandle resources = within(page, "/Resources");
      within(resources, "/XObject").replaceKey(name, out->copyForeignObject(of[i].getFormXObjectForPage()));
      within(resources, "/Properties").replaceKey(name, group);
      pages[i].addPageContents(
          QPDFObjectHandle::newStream(out.get(), "q\n/OC " + name + " BDC\n" + name + " Do\nEMC\nQ\n"), false);
    }
  }
  QPDFObjectHandle shown = QPDFObjectHandle::newDictionary();
  shown.replaceKey("/Order", groups);
  QPDFObjectHandle optional = QPDFObjectHandle::newDictionary();
  optional.replaceKey("/OCGs", groups);
  optional.replaceKey("/D", shown);
  out->getRoot().replaceKey("/OCProperties", optional);
  within(out->getRoot(), "/ViewerPreferences").replaceKey("/PrintScaling", QPDFObjectHandle::newName("/None"));
  QPDFWriter writer(*out);
  writer.setOutputMemory();
  writer.setMinimumPDFVersion("1.6");
  writer.setDeterministicID(true);
  writer.write();
  const std::shared_ptr<Buffer> bytes = writer.getBufferSharedPointer();
  return {reinterpret_cast<const char*>(bytes->getBuffer()), bytes->getSize()};
}

}  // namespace armure
