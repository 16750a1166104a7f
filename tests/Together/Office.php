<?php

declare(strict_types=1);

namespace App\Tests\Together;

use Symfony\Component\Process\Process;

/** A database of its own on which several processes work at once, as an office does. */
final class Office
{
    /** Seconds in which every process is up and waits for the moment. */
    private const UP = 1.5;

    public readonly string $folder;

    /** @var array<string, string|false> */
    private readonly array $env;

    public function __construct()
    {
        $this->folder = sys_get_temp_dir().'/together-'.bin2hex(random_bytes(4));
        mkdir($this->folder);
        $this->env = [
            'APP_ENV' => 'test', 'DATABASE_URL' => "sqlite:///{$this->folder}/office.db", 'STORE_DIR' => $this->folder.'/store',
            'DATABASE_BUSY_MS' => '3000', 'SYMFONY_DOTENV_VARS' => false, 'KERNEL_CLASS' => false,
        ];
        $console = ['php', \dirname(__DIR__, 2).'/bin/console', 'doctrine:migrations:migrate', '--no-interaction', '--quiet'];
        (new Process($console, null, $this->env, null, 60))->mustRun();
        $this->atOnce(['found']);
    }

    /**
     * Every action in a process of its own, all at one moment.
     *
     * @param list<string> ...$actions
     *
     * @return list<string> what each said
     */
    public function atOnce(array ...$actions): array
    {
        $moment = (string) (microtime(true) + self::UP);
        $processes = [];
        foreach ($actions as $action) {
            $process = new Process(['php', __DIR__.'/act.php', $moment, ...$action], null, $this->env, null, 60);
            $process->start();
            $processes[] = $process;
        }

        return array_map(static function (Process $p): string {
            $p->wait();

            return trim($p->getOutput().$p->getErrorOutput());
        }, $processes);
    }

    public function database(): \PDO
    {
        return new \PDO('sqlite:'.$this->folder.'/office.db');
    }

    /** @return list<list<mixed>> */
    public function rows(string $sql): array
    {
        $statement = $this->database()->query($sql);

        return false === $statement ? [] : array_values($statement->fetchAll(\PDO::FETCH_NUM));
    }
}
