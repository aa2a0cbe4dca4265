/** A systemd unit that keeps Kapelle running from start to start, as text. */
export function systemdUnit(of: {
  readonly folder: string
  readonly user: string
  readonly data: string
  readonly args: readonly string[]
}): string {
  const words = ['./kapelle', 'start', ...of.args].map((word) =>
    /^[\w./:=-]+$/.test(word)
      ? word
      : `"${word.replace(/["\\%]/g, (sign) => (sign === '%' ? '%%' : `\\${sign}`))}"`,
  )
  return `# Save as /etc/systemd/system/kapelle.service, then: systemctl daemon-reload && systemctl enable --now kapelle
[Unit]
Description=Kapelle
After=network.target

[Service]
User=${of.user}
WorkingDirectory=${of.folder}
Environment="KAPELLE_DATA=${of.data.replaceAll('%', '%%')}"
ExecStart=/usr/bin/env bash ${words.join(' ')}
# The launcher ends server and database in their order; it needs a moment for it.
KillMode=mixed
TimeoutStopSec=60
Restart=on-failure
RestartSec=5

[Install]
WantedBy=multi-user.target
`
}
