package rivo.server.demo;

import java.nio.file.Path;
import java.time.Duration;
import org.springframework.boot.context.properties.ConfigurationProperties;
import org.springframework.boot.context.properties.bind.DefaultValue;

/**
 * The demo's own settings.
 *
 * @param small 60 devices instead of about 6,480
 * @param folder where the simulated fleet keeps its state
 * @param lively how many devices are lively: they call in every few seconds
 * @param calls how often those call in
 * @param step how long one step of a job takes
 * @param shelf of a thousand people who sign in, how many take something from their shelf or give it back
 * @param sessions how long somebody stays signed in: short, so that sign-ins are seen to happen
 */
@ConfigurationProperties("rivo.demo")
record DemoSettings(@DefaultValue("false") boolean small, Path folder, @DefaultValue("300") int lively, @DefaultValue("3s") Duration calls,
        @DefaultValue("1200ms") Duration step, @DefaultValue("75s") Duration sessions, @DefaultValue("8") int shelf) {
}
