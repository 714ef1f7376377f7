package rivo.server.catalogue.content;

import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.Optional;
import java.util.Set;
import java.util.regex.Pattern;
import javax.xml.XMLConstants;
import javax.xml.parsers.DocumentBuilder;
import javax.xml.parsers.DocumentBuilderFactory;
import javax.xml.parsers.ParserConfigurationException;
import javax.xml.transform.OutputKeys;
import javax.xml.transform.Transformer;
import javax.xml.transform.TransformerException;
import javax.xml.transform.TransformerFactory;
import javax.xml.transform.dom.DOMSource;
import javax.xml.transform.stream.StreamResult;
import org.w3c.dom.Attr;
import org.w3c.dom.Document;
import org.w3c.dom.Element;
import org.w3c.dom.Node;
import org.xml.sax.SAXException;

/** Keeps of an SVG what draws, and nothing that runs, links or fetches: whatever is not listed here is left out. */
final class SvgCleaner {

    private static final String SVG = "http://www.w3.org/2000/svg";
    private static final Set<String> ELEMENTS = Set.of("svg", "g", "path", "rect", "circle", "ellipse", "line", "polyline",
            "polygon", "defs", "linearGradient", "radialGradient", "stop", "clipPath", "title", "desc");
    private static final Set<String> ATTRIBUTES = Set.of("viewBox", "width", "height", "preserveAspectRatio", "version", "d",
            "points", "x", "y", "x1", "y1", "x2", "y2", "cx", "cy", "r", "rx", "ry", "fx", "fy", "id", "transform", "fill",
            "fill-opacity", "fill-rule", "stroke", "stroke-width", "stroke-opacity", "stroke-linecap", "stroke-linejoin",
            "stroke-miterlimit", "stroke-dasharray", "opacity", "offset", "stop-color", "stop-opacity", "gradientUnits",
            "gradientTransform", "spreadMethod", "clip-path", "clip-rule", "clipPathUnits");
    /** A reference may lead only to something within. */
    private static final Pattern OUTSIDE = Pattern.compile("(?i)url\\s*\\((?!\\s*#)|[a-z]+:|&|\\\\");
    private static final int DEEPEST = 60;

    private SvgCleaner() {
    }

    /** Empty when it cannot be read, or is no SVG. */
    static Optional<byte[]> clean(byte[] bytes) {
        try {
            Document document = builder().parse(new ByteArrayInputStream(bytes));
            Element root = document.getDocumentElement();
            if (!"svg".equals(root.getLocalName()) || !SVG.equals(root.getNamespaceURI())) {
                return Optional.empty();
            }
            keepWhatDraws(root, 0);
            return Optional.of(written(root));
        } catch (ParserConfigurationException | SAXException | IOException | TransformerException e) {
            return Optional.empty();
        }
    }

    private static DocumentBuilder builder() throws ParserConfigurationException {
        DocumentBuilderFactory factory = DocumentBuilderFactory.newInstance();
        factory.setNamespaceAware(true);
        factory.setFeature("http://apache.org/xml/features/disallow-doctype-decl", true);
        factory.setFeature(XMLConstants.FEATURE_SECURE_PROCESSING, true);
        DocumentBuilder builder = factory.newDocumentBuilder();
        builder.setErrorHandler(null);
        return builder;
    }

    private static void keepWhatDraws(Element element, int depth) {
        for (int i = element.getAttributes().getLength() - 1; i >= 0; i--) {
            Attr attribute = (Attr) element.getAttributes().item(i);
            boolean known = attribute.getNamespaceURI() == null && ATTRIBUTES.contains(attribute.getName());
            if (!known && !"xmlns".equals(attribute.getName()) || known && OUTSIDE.matcher(attribute.getValue()).find()) {
                element.removeAttributeNode(attribute);
            }
        }
        Node child = element.getFirstChild();
        while (child != null) {
            Node next = child.getNextSibling();
            if (child instanceof Element inner && depth < DEEPEST && SVG.equals(inner.getNamespaceURI())
                    && ELEMENTS.contains(inner.getLocalName())) {
                keepWhatDraws(inner, depth + 1);
            } else if (child.getNodeType() != Node.TEXT_NODE) {
                element.removeChild(child);
            }
            child = next;
        }
    }

    private static byte[] written(Element root) throws TransformerException {
        TransformerFactory factory = TransformerFactory.newInstance();
        factory.setFeature(XMLConstants.FEATURE_SECURE_PROCESSING, true);
        Transformer transformer = factory.newTransformer();
        transformer.setOutputProperty(OutputKeys.OMIT_XML_DECLARATION, "yes");
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        transformer.transform(new DOMSource(root), new StreamResult(out));
        return out.toByteArray();
    }
}
