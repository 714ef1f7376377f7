package rivo.server.mirror;

import java.net.URI;

/**
 * The configuration by which an nginx becomes a mirror: a caching reverse proxy (RFC 9111) that fetches content in slices,
 * each once, and keeps it for a year. {@code /content/SHA256} gives content, fetching what is missing;
 * {@code /held/SHA256} gives only what it has, else 404.
 */
final class NginxFile {

    /** How much the mirror fetches at once, in bytes. */
    static final long SLICE = 16L << 20;

    private NginxFile() {
    }

    /**
     * @param server where the mirror reaches Rivo
     * @param key of the mirror; whoever has it may fetch content whose SHA-256 they know
     */
    static String of(Mirror mirror, URI server, String key) {
        int port = URI.create(mirror.address()).getPort();
        boolean secure = mirror.address().startsWith("https:");
        return """
                # The mirror %1$s of Rivo. Put this into /etc/nginx/conf.d/rivo-mirror.conf, readable by root alone: it holds the
                # mirror's key. nginx needs its slice module, which Debian's packages have.
                proxy_cache_path /var/cache/nginx/rivo levels=1:2 keys_zone=rivo:32m max_size=200g inactive=365d use_temp_path=off;

                server {
                    listen %2$s;
                    server_name %3$s;%4$s
                    access_log off;

                    slice %5$dm;
                    proxy_cache rivo;
                    proxy_cache_key $rivo_sha256$slice_range;
                    proxy_cache_valid 200 206 365d;
                    proxy_cache_lock on;
                    proxy_cache_lock_timeout 10m;
                    proxy_cache_revalidate off;
                    proxy_http_version 1.1;

                    # Content, fetched from Rivo where it is not here yet.
                    location ~ "^/content/(?<rivo_sha256>[0-9a-f]{64})$" {
                        limit_except GET { deny all; }
                        # All of them here: nginx takes none from above where a location has one of its own.
                        proxy_set_header Authorization "Bearer %6$s";
                        proxy_set_header Range $slice_range;
                        proxy_set_header If-None-Match "";
                        proxy_set_header If-Modified-Since "";
                        proxy_set_header Connection "";
                        proxy_pass %7$s/device/v2/content/$rivo_sha256;
                    }

                    # What is here, and nothing else.
                    location ~ "^/held/(?<rivo_sha256>[0-9a-f]{64})$" {
                        limit_except GET { deny all; }
                        proxy_pass http://unix:/run/rivo-mirror-nowhere.sock;
                        proxy_intercept_errors on;
                        error_page 502 504 =404 /absent;
                    }

                    location = /absent { internal; return 404; }
                    location / { return 404; }
                }
                """.formatted(mirror.name(), (port < 0 ? secure ? "443" : "80" : Integer.toString(port)) + (secure ? " ssl" : ""),
                URI.create(mirror.address()).getHost(), secure ? "\n    ssl_certificate /etc/ssl/rivo-mirror.pem;\n"
                        + "    ssl_certificate_key /etc/ssl/rivo-mirror.key;" : "", SLICE >> 20, key,
                server.toString().replaceAll("/+$", ""));
    }
}
