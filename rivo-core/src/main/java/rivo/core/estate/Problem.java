package rivo.core.estate;

import java.util.Objects;

/**
 * One thing that is wrong with what was given, said so that somebody can mend it.
 *
 * @param code a short, stable word for programs, such as {@code unknown-ou}
 * @param place where it stands, such as {@code assignments[3].include[0]}; empty when it concerns the whole
 * @param sentence what is wrong and what to do, one sentence
 */
public record Problem(String code, String place, String sentence) {

    public Problem {
        Objects.requireNonNull(code);
        Objects.requireNonNull(place);
        Objects.requireNonNull(sentence);
    }
}
