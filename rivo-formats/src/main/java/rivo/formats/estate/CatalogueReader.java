package rivo.formats.estate;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Kit;
import rivo.core.estate.Need;
import rivo.core.estate.Release;
import rivo.core.estate.ReleaseState;
import rivo.core.estate.Replacement;
import rivo.core.estate.Scope;
import rivo.core.estate.Title;
import rivo.core.estate.Variant;
import rivo.core.estate.Version;

/** Reads titles and kits. */
final class CatalogueReader {

    private static final Map<String, Scope> SCOPES = words(Scope.values(), Scope::word);
    private static final Map<String, ReleaseState> STATES = words(ReleaseState.values(), ReleaseState::word);
    private static final Map<String, Replacement.Mode> MODES = words(Replacement.Mode.values(), Replacement.Mode::word);

    private final JsonCursor at;
    private final Set<String> ofUnreadScope = new HashSet<>();

    CatalogueReader(JsonCursor at) {
        this.at = at;
    }

    static <T> Map<String, T> words(T[] values, Function<T, String> word) {
        return Arrays.stream(values).collect(Collectors.toMap(word, Function.identity()));
    }

    /** The ids of the titles that have come without a scope, or with one that is none. */
    Set<String> ofUnreadScope() {
        return ofUnreadScope;
    }

    /** What has been read of a title so far. */
    private static final class TitleSoFar {
        private @Nullable String id;
        private String name = "";
        private @Nullable Scope scope;
        private boolean scopeGiven;
        private @Nullable Integer seats;
        private final List<String> conflictsWith = new ArrayList<>();
        private final List<Release> releases = new ArrayList<>();
    }

    Title title() {
        TitleSoFar title = new TitleSoFar();
        at.object(key -> {
            switch (key) {
                case "id" -> title.id = at.text();
                case "name" -> title.name = at.textOrEmpty();
                case "scope" -> {
                    title.scopeGiven = true;
                    title.scope = at.word(SCOPES);
                }
                case "seats" -> title.seats = at.isNull() ? null : (Integer) (int) at.whole(0, Integer.MAX_VALUE);
                case "conflictsWith" -> title.conflictsWith.addAll(at.listOf(at::textOrEmpty));
                case "releases" -> at.list(() -> title.releases.add(release(title.releases.size())));
                default -> {
                    return false;
                }
            }
            return true;
        });
        at.need(title.id, "id");
        if (!title.scopeGiven) {
            at.need(null, "scope");
        }
        if (title.scope == null && title.id != null) {
            ofUnreadScope.add(title.id);
        }
        return new Title(Objects.requireNonNullElse(title.id, ""), title.name,
                Objects.requireNonNullElse(title.scope, Scope.DEVICE), title.seats, title.conflictsWith,
                title.releases);
    }

    /** What has been read of a release so far. */
    private static final class ReleaseSoFar {
        private @Nullable Version version;
        private boolean versionGiven;
        private ReleaseState state = ReleaseState.OFFERED;
        private final List<Need> needs = new ArrayList<>();
        private final List<Replacement> replaces = new ArrayList<>();
        private final List<Variant> variants = new ArrayList<>();
    }

    private Release release(int index) {
        ReleaseSoFar release = new ReleaseSoFar();
        at.object(key -> {
            switch (key) {
                case "version" -> {
                    release.versionGiven = true;
                    release.version = at.version();
                }
                case "state" -> release.state = Objects.requireNonNullElse(at.word(STATES), release.state);
                case "needs" -> at.list(() -> release.needs.add(need()));
                case "replaces" -> at.list(() -> release.replaces.add(replacement()));
                case "variants" -> at.list(() -> release.variants.add(variant()));
                default -> {
                    return false;
                }
            }
            return true;
        });
        if (!release.versionGiven) {
            at.need(null, "version");
        }
        // A version that could not be read must not look like another one's.
        Version version = Objects.requireNonNullElse(release.version, Version.of("unread" + index));
        return new Release(version, release.state, release.needs, release.replaces, release.variants);
    }

    private Need need() {
        String[] title = new String[1];
        Version[] min = new Version[1];
        at.object(key -> {
            switch (key) {
                case "title" -> title[0] = at.text();
                case "min" -> min[0] = at.isNull() ? null : at.version();
                default -> {
                    return false;
                }
            }
            return true;
        });
        at.need(title[0], "title");
        return new Need(Objects.requireNonNullElse(title[0], ""), min[0]);
    }

    private Replacement replacement() {
        String[] title = new String[1];
        Replacement.Mode[] mode = new Replacement.Mode[1];
        boolean[] given = new boolean[1];
        at.object(key -> {
            switch (key) {
                case "title" -> title[0] = at.text();
                case "mode" -> {
                    given[0] = true;
                    mode[0] = at.word(MODES);
                }
                default -> {
                    return false;
                }
            }
            return true;
        });
        at.need(title[0], "title");
        if (!given[0]) {
            at.need(null, "mode");
        }
        return new Replacement(Objects.requireNonNullElse(title[0], ""),
                Objects.requireNonNullElse(mode[0], Replacement.Mode.REMOVE_FIRST));
    }

    private Variant variant() {
        String[] texts = new String[2];
        at.object(key -> {
            switch (key) {
                case "id" -> texts[0] = at.text();
                case "fits" -> texts[1] = at.optionalText();
                default -> {
                    return false;
                }
            }
            return true;
        });
        at.need(texts[0], "id");
        return new Variant(Objects.requireNonNullElse(texts[0], ""), texts[1]);
    }

    Kit kit() {
        String[] texts = new String[2];
        List<String> titles = new ArrayList<>();
        at.object(key -> {
            switch (key) {
                case "id" -> texts[0] = at.text();
                case "name" -> texts[1] = at.text();
                case "titles" -> titles.addAll(at.listOf(at::textOrEmpty));
                default -> {
                    return false;
                }
            }
            return true;
        });
        at.need(texts[0], "id");
        return new Kit(Objects.requireNonNullElse(texts[0], ""), Objects.requireNonNullElse(texts[1], ""), titles);
    }
}
