/** What MariaDB's own programs need to reach a database; the password goes through the environment, not the command line. */
export function clientArguments(url: string): { args: string[]; env: NodeJS.ProcessEnv; name: string } {
  const { hostname, port, username, password, pathname } = new URL(url);
  return {
    args: [
      '--no-defaults',
      `--host=${hostname}`,
      `--port=${port || '3306'}`,
      `--user=${decodeURIComponent(username)}`,
      '--protocol=tcp',
      '--default-character-set=utf8mb4',
    ],
    env: { ...process.env, MYSQL_PWD: decodeURIComponent(password) },
    name: decodeURIComponent(pathname.slice(1)),
  };
}

/** The same server and account, another database. */
export function withDatabase(url: string, name: string): string {
  const other = new URL(url);
  other.pathname = `/${encodeURIComponent(name)}`;
  return other.href;
}
