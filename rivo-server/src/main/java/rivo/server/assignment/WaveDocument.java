package rivo.server.assignment;

import com.fasterxml.jackson.annotation.JsonInclude;
import com.fasterxml.jackson.annotation.JsonProperty;
import java.math.BigDecimal;
import java.util.List;
import org.jspecify.annotations.Nullable;
import rivo.core.estate.Target;
import rivo.core.estate.Wave;

/**
 * One wave of an assignment. It has targets or a share.
 *
 * @param to targets; null for a share
 * @param share percent; null for targets
 */
@JsonInclude(JsonInclude.Include.NON_NULL)
public record WaveDocument(@Nullable List<String> to, @Nullable BigDecimal share, @JsonProperty(required = true) boolean open) {

    public WaveDocument {
        to = to == null ? null : List.copyOf(to);
    }

    static WaveDocument of(Wave wave) {
        return new WaveDocument(wave.share() == null ? wave.to().stream().map(Target::toString).toList() : null, wave.share(), wave.open());
    }
}
