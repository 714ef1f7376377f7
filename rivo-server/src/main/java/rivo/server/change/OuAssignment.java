package rivo.server.change;

import io.swagger.v3.oas.annotations.media.Schema;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Intent;
import rivo.core.estate.RefusedException;
import rivo.core.estate.Subject;

/**
 * What shall be assigned of a title or a kit to an OU, in place of what is assigned there now.
 *
 * @param subject {@code title:ID} or {@code kit:ID}
 * @param intent {@code none} ends what is assigned there
 * @param binding whether it crosses fences and cannot be undone below
 * @param choices what it fixes of the title's choices, by their ids; none of a kit's
 */
public record OuAssignment(String subject, String ou,
        @Schema(allowableValues = {"required", "available", "uninstall", "none"}) String intent, boolean binding,
        @Nullable Map<String, String> choices) {

    private static final String NONE = "none";

    public OuAssignment {
        Objects.requireNonNull(ou);
        parse(intent);
        parseSubject(subject);
        choices = choices == null ? Map.of() : Map.copyOf(choices);
    }

    /** One that fixes no choices of a title. */
    public static OuAssignment title(String title, String ou, String intent, boolean binding) {
        return new OuAssignment(Subject.title(title).toString(), ou, intent, binding, Map.of());
    }

    Subject about() {
        return parseSubject(subject);
    }

    Map<String, String> fixes() {
        return choices == null ? Map.of() : choices;
    }

    private static Subject parseSubject(@Nullable String written) {
        Subject subject = written == null ? null : Subject.parse(written);
        if (subject == null) {
            throw new RefusedException("bad-subject", "subject", "An edit is about a title or a kit; write title:ID or kit:ID.");
        }
        return subject;
    }

    /** Null for {@code none}. */
    @Nullable Intent wanted() {
        return parse(intent);
    }

    private static @Nullable Intent parse(@Nullable String word) {
        if (NONE.equals(word)) {
            return null;
        }
        for (Intent intent : Intent.values()) {
            if (intent.word().equals(word)) {
                return intent;
            }
        }
        throw new RefusedException("bad-intent", "intent", "The intent " + word + " is not known; use required, available, uninstall or none.");
    }
}
