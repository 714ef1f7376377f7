package rivo.server.catalogue.title;

import com.fasterxml.jackson.annotation.JsonInclude;
import io.swagger.v3.oas.annotations.media.Schema;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Release;
import rivo.core.estate.ReleaseState;
import rivo.core.estate.Scope;
import rivo.core.estate.Title;
import rivo.core.estate.Variant;
import rivo.core.estate.Version;
import rivo.server.catalogue.content.Contents;
import rivo.server.estate.EstateRecords.NeedRecord;
import rivo.server.estate.EstateRecords.ReplacementRecord;

/**
 * A title with everything the catalogue keeps of it.
 *
 * @param scope {@code device} where it is installed for the whole device, {@code user} where for each person, in their profile
 * @param trustedSigners who may sign it besides its maker
 * @param seats how many the licence serves; null when they are not counted
 * @param asks what is asked of people who take it from their shelf
 */
public record TitleRecord(String id, String name, String maker, About about,
        @Schema(allowableValues = {"device", "user"}) String scope, @Nullable Integer seats, Asks asks,
        List<String> trustedSigners, List<String> conflictsWith, List<ReleaseRecord> releases) {

    /** One that people may take as they like. */
    public TitleRecord(String id, String name, String maker, About about, String scope, @Nullable Integer seats, List<String> trustedSigners,
            List<String> conflictsWith, List<ReleaseRecord> releases) {
        this(id, name, maker, about, scope, seats, Asks.NOTHING, trustedSigners, conflictsWith, releases);
    }

    public TitleRecord {
        Objects.requireNonNull(id);
        about = about == null ? About.NOTHING : about;
        scope = scope == null ? Scope.DEVICE.word() : scope;
        asks = asks == null ? Asks.NOTHING : asks;
        trustedSigners = trustedSigners == null ? List.of() : List.copyOf(trustedSigners);
        conflictsWith = conflictsWith == null ? List.of() : List.copyOf(conflictsWith);
        releases = releases == null ? List.of() : List.copyOf(releases);
    }

    /** One for the whole device, of which nothing else is said. */
    public static TitleRecord of(String id, String name, String maker, List<ReleaseRecord> releases) {
        return new TitleRecord(id, name, maker, About.NOTHING, Scope.DEVICE.word(), null, List.of(), List.of(), releases);
    }

    /** The same, installed for the device or for each person. */
    public TitleRecord installedFor(Scope whom) {
        return new TitleRecord(id, name, maker, about, whom.word(), seats, asks, trustedSigners, conflictsWith, releases);
    }

    public TitleRecord withReleases(List<ReleaseRecord> newer) {
        return new TitleRecord(id, name, maker, about, scope, seats, asks, trustedSigners, conflictsWith, newer);
    }

    /**
     * What is asked of people who take it from their shelf.
     *
     * @param approval whether an administrator has to agree first
     * @param licence whether each of them has to accept the licence text, where there is one
     */
    public record Asks(boolean approval, boolean licence) {

        public static final Asks NOTHING = new Asks(false, false);
    }

    /**
     * What people want to know of it; each may be empty.
     *
     * @param information an address where more is said
     * @param privacy an address where it is said what it does with personal data
     * @param approvedBy the number of the change that approved it
     * @param icon the id of its picture; empty for a drawn one
     * @param licence a text that somebody has to accept once before it is assigned
     * @param web of a title that is a web page: its address; such a title installs nothing, and the shelf opens it
     */
    public record About(String owner, String category, String description, String information, String privacy,
            String notes, String approvedBy, String icon, String licence, String web) {

        public static final About NOTHING = new About("", "", "", "", "", "", "", "", "");

        /** Of one that is no web page. */
        public About(String owner, String category, String description, String information, String privacy, String notes, String approvedBy, String icon,
                String licence) {
            this(owner, category, description, information, privacy, notes, approvedBy, icon, licence, "");
        }

        public About {
            owner = orEmpty(owner);
            category = orEmpty(category);
            description = orEmpty(description);
            information = orEmpty(information);
            privacy = orEmpty(privacy);
            notes = orEmpty(notes);
            approvedBy = orEmpty(approvedBy);
            icon = orEmpty(icon);
            licence = orEmpty(licence);
            web = orEmpty(web).strip();
        }

        private static String orEmpty(@Nullable String text) {
            return text == null ? "" : text;
        }

        /** Pictures stay in the catalogue that they were given to. */
        public About withoutIcon() {
            return new About(owner, category, description, information, privacy, notes, approvedBy, "", licence, web);
        }

        public About described(@Nullable String text) {
            return new About(owner, category, orEmpty(text), information, privacy, notes, approvedBy, icon,
                    licence, web);
        }
    }

    /**
     * One version.
     *
     * @param offered whether devices may get it; one that is not stays, and can be brought back
     * @param note such as why it was withdrawn
     * @param choices what an assignment or a person may fix of it
     */
    public record ReleaseRecord(String version, boolean offered, String note, List<NeedRecord> needs,
            List<ReplacementRecord> replaces, List<ChoiceRecord> choices, List<VariantRecord> variants) {
        public ReleaseRecord {
            note = note == null ? "" : note;
            needs = needs == null ? List.of() : List.copyOf(needs);
            replaces = replaces == null ? List.of() : List.copyOf(replaces);
            choices = choices == null ? List.of() : List.copyOf(choices);
            variants = variants == null ? List.of() : List.copyOf(variants);
        }

        /** An offered one without relations. */
        public static ReleaseRecord of(String version, List<VariantRecord> variants) {
            return new ReleaseRecord(version, true, "", List.of(), List.of(), List.of(), variants);
        }

        public ReleaseRecord withVariants(List<VariantRecord> newer) {
            return new ReleaseRecord(version, offered, note, needs, replaces, choices, newer);
        }

        /** The variant of this id; null when there is none. */
        public @Nullable VariantRecord variant(@Nullable String id) {
            return variants.stream().filter(v -> v.id().equals(id)).findFirst().orElse(null);
        }

        Release release() {
            return new Release(Version.of(version), offered ? ReleaseState.OFFERED : ReleaseState.WITHDRAWN,
                    needs.stream().map(NeedRecord::need).toList(),
                    replaces.stream().map(ReplacementRecord::replacement).toList(),
                    variants.stream().map(v -> new Variant(v.id(), v.fits())).toList());
        }
    }

    /**
     * One way to put a release on and to take it off.
     *
     * @param fits a rule that the device has to satisfy; null when it fits every device
     * @param asPerson whether its steps run as the person who is signed in, unless a step says otherwise
     * @param contents what the steps need; none when commands are enough
     * @param family by which its packaging system knows all releases of it, such as an upgrade code; null where none was read
     */
    public record VariantRecord(String id, @Nullable String fits, boolean asPerson, List<Contents.Content> contents,
            List<Step> install, List<Step> remove, List<Step> repair, Presence presence, @JsonInclude(JsonInclude.Include.NON_NULL) @Nullable String family) {

        /** One of no family that is known. */
        public VariantRecord(String id, @Nullable String fits, boolean asPerson, List<Contents.Content> contents, List<Step> install, List<Step> remove,
                List<Step> repair, Presence presence) {
            this(id, fits, asPerson, contents, install, remove, repair, presence, null);
        }

        public VariantRecord {
            contents = contents == null ? List.of() : List.copyOf(contents);
            install = install == null ? List.of() : List.copyOf(install);
            remove = remove == null ? List.of() : List.copyOf(remove);
            repair = repair == null ? List.of() : List.copyOf(repair);
            presence = presence == null ? Presence.NONE : presence;
        }
    }

    /** Whether it is installed for the device or for each person. */
    public Scope installedFor() {
        return Scope.USER.word().equals(scope) ? Scope.USER : Scope.DEVICE;
    }

    /** Whether it is a web page: nothing is installed, and the shelf opens it. */
    public boolean isWebPage() {
        return !about.web().isEmpty();
    }

    /** What the core needs to know of it. */
    public Title title() {
        return new Title(id, name, installedFor(), seats, conflictsWith,
                releases.stream().map(ReleaseRecord::release).toList());
    }

    /** The newest release that is offered, else the newest; null without any. */
    public @Nullable ReleaseRecord leading() {
        ReleaseRecord leading = null;
        for (ReleaseRecord release : releases) {
            boolean stronger = leading == null || release.offered() && !leading.offered()
                    || release.offered() == leading.offered()
                            && Version.of(release.version()).compareTo(Version.of(leading.version())) > 0;
            leading = stronger ? release : leading;
        }
        return leading;
    }
}
