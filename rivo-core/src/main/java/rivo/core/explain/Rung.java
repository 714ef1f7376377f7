package rivo.core.explain;

import rivo.core.estate.Ou;
import rivo.core.resolve.Candidate;

/**
 * One line of a trail.
 *
 * @param candidate the pair of assignment and target
 * @param target the OU it names
 * @param verdict what became of it here
 * @param sentence the verdict in words, without the assignment's name
 */
public record Rung(Candidate candidate, Ou target, Verdict verdict, String sentence) {
}
