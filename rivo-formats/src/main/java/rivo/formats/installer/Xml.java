package rivo.formats.installer;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import javax.xml.XMLConstants;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import org.jspecify.annotations.Nullable;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.w3c.dom.NodeList;
import org.xml.sax.SAXException;

/** Manifests: without document types, entities, and anything that is fetched from elsewhere. Names are those without their namespace. */
final class Xml {

    private static final int MOST = 100;

    private Xml() {
    }

    static Document read(byte[] bytes, ReadingBudget budget) throws IOException {
        // A document comes to many times its text.
        budget.hold(60L * bytes.length);
        try {
            DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
            factory.setNamespaceAware(true);
            factory.setFeature("http://apache.org/xml/features/disallow-doctype-decl", true);
            factory.setFeature(XMLConstants.FEATURE_SECURE_PROCESSING, true);
            factory.setExpandEntityReferences(false);
            var builder = factory.newDocumentBuilder();
            builder.setErrorHandler(null);
            return builder.parse(new ByteArrayInputStream(bytes));
        } catch (ParserConfigurationException | SAXException e) {
            throw new IOException("its manifest is no XML: " + e.getMessage(), e);
        }
    }

    /** The first hundred of them. */
    static List<Element> all(Document document, String name) {
        NodeList found = document.getElementsByTagNameNS("*", name);
        List<Element> all = new ArrayList<>();
        for (int i = 0; i < Math.min(MOST, found.getLength()); i++) {
            all.add((Element) found.item(i));
        }
        return all;
    }

    static @Nullable Element first(Document document, String name) {
        return (Element) document.getElementsByTagNameNS("*", name).item(0);
    }

    static @Nullable String textOf(Document document, String name) {
        Element element = first(document, name);
        return element == null ? null : text(element.getTextContent());
    }

    static @Nullable String text(String text) {
        return text.isBlank() ? null : text.strip();
    }
}
