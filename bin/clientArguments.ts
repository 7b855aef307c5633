/** What MariaDB's own programs need to reach a database; the password goes through the environment, not the command line. */
export function clientArguments(url: string): { args: string[]; env: NodeJS.ProcessEnv; name: string } {
  const { hostname, port, username, password, pathname } = new URL(url);
  return {
    args: ['--no-defaults', `--host=${hostname}`, `--port=${port || '3306'}`, `--user=${decodeURIComponent(username)}`, '--protocol=tcp', '--default-character-set=utf8mb4'],
    env: { ...process.env, MYSQL_PWD: decodeURIComponent(password) },
    name: pathname.slice(1),
  };
}
