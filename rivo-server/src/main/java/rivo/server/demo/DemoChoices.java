package rivo.server.demo;

import java.util.List;
import rivo.server.catalogue.kit.KitDocument;
import rivo.server.catalogue.title.ChoiceKind;
import rivo.server.catalogue.title.ChoiceRecord;
import rivo.server.catalogue.title.ChoiceRecord.Allowed;

/** What may be chosen of the demo's titles, its licence text, and its kits. */
final class DemoChoices {

    /** The languages of Brookmap Studio that come as a file of their own. */
    static final List<String> LANGUAGES = List.of("cy", "de", "fr", "pl", "pt");

    static final List<KitDocument> KITS = List.of(
            new KitDocument("lab-bench", "Lab bench", "What a bench in a laboratory needs", List.of("graphkit", "siltscope",
                    "tarnlog")),
            new KitDocument("field-crew", "Field crew", "For those who are out on the pipes", List.of("otterlink", "brookmap",
                    "kingfisher")));

    private DemoChoices() {
    }

    static List<ChoiceRecord> of(String title, String version) {
        return "brookmap".equals(title) ? List.of(new ChoiceRecord("languages", "Languages", ChoiceKind.LANGUAGES, "en",
                languages(version), null, null),
                new ChoiceRecord("parts", "Parts", ChoiceKind.PARTS, "viewer,analysis", List.of(
                        new Allowed("viewer", "Viewer", "VIEW", 0, ""), new Allowed("analysis", "Analysis", "ANALYSE", 64 << 20, ""),
                        new Allowed("print", "Large prints", "PRINT", 22 << 20, ""),
                        new Allowed("survey", "Survey tools", "SURVEY", 41 << 20, "")), null, null),
                new ChoiceRecord("channel", "Update channel", ChoiceKind.CHANNEL, "held", List.of(
                        new Allowed("held", "held at this release", "", 0, ""), new Allowed("steady", "steady", "", 0, ""),
                        new Allowed("early", "early", "", 0, "")), null, null),
                new ChoiceRecord("cache", "Map cache, GiB", ChoiceKind.NUMBER, "8", List.of(), 1L, 64L)) : List.of();
    }

    private static List<Allowed> languages(String version) {
        List<Allowed> languages = new java.util.ArrayList<>(List.of(new Allowed("en", "English", "", 0, "")));
        List<String> names = List.of("Welsh", "German", "French", "Polish", "Portuguese");
        for (int i = 0; i < LANGUAGES.size(); i++) {
            languages.add(new Allowed(LANGUAGES.get(i), names.get(i), "", 0, pack(LANGUAGES.get(i), version)));
        }
        return languages;
    }

    static String pack(String language, String version) {
        return "brookmap-" + version + "-" + language + ".pack";
    }

    static String licence(String title) {
        return "valvewright".equals(title) ? """
                Valvewright CAD is made by Marlowe & Pask for the drawing of valves and chambers.

                1. Each seat serves one computer at a time.
                2. A seat that has been free for a day may serve another computer.
                3. Drawings belong to whoever drew them.
                4. The maker may ask once a year how many seats are in use.
                """ : "";
    }
}
