<?php

declare(strict_types=1);

namespace App\Tests\Browser;

use Facebook\WebDriver\Chrome\ChromeOptions;
use Facebook\WebDriver\Remote\DesiredCapabilities;
use Facebook\WebDriver\Remote\RemoteWebDriver;
use Facebook\WebDriver\WebDriverBy;
use Facebook\WebDriver\WebDriverDimension;
use Facebook\WebDriver\WebDriverElement;
use Facebook\WebDriver\WebDriverKeys;
use Symfony\Component\Filesystem\Filesystem;
use Symfony\Component\Process\Process;

/** The real application on its own data folder, a worker, and a headless Chromium to drive it. */
final class Office
{
    private const ROOM = 4e9;

    public readonly string $url;
    public readonly string $folder;
    public RemoteWebDriver $driver;

    /** @var array<string, string> */
    private array $environment;

    /** @var list<Process> */
    private array $processes = [];

    /** Data folder of a demo project as it was loaded. */
    private static ?string $loaded = null;

    public function __construct(bool $demo = true, bool $browser = true)
    {
        $root = self::root();
        $this->folder = self::disk().'/office-'.bin2hex(random_bytes(4));
        mkdir($this->folder.'/store', 0777, true);
        if ($demo && null !== self::$loaded) {
            (new Filesystem())->mirror(self::$loaded, $this->folder);
        }
        $this->environment = [
            'APP_ENV' => 'prod', 'APP_DEBUG' => '0', 'APP_SECRET' => 'browser-tests',
            'DATABASE_URL' => 'sqlite:///'.$this->folder.'/mensura.db', 'STORE_DIR' => $this->folder.'/store',
        ];
        $this->console('cache:clear', '--quiet');
        $this->console('doctrine:migrations:migrate', '--no-interaction', '--quiet');
        if ($demo && null === self::$loaded) {
            $this->console('mensura:demo');
            self::keepLoaded($this->folder);
        }
        $stations = self::freePort();
        $this->environment['STATION_SERVICE_URL'] = "http://127.0.0.1:$stations";
        $this->start(['php', '-S', "127.0.0.1:$stations", $root.'/demo/service.php'], ['PHP_CLI_SERVER_WORKERS' => '2']);
        $port = self::freePort();
        $this->url = "http://127.0.0.1:$port";
        $this->start([
            'php', '-d', 'variables_order=EGPCS', '-d', 'opcache.enable_cli=1', '-d', 'memory_limit=1G', '-d',
            'upload_max_filesize=64M', '-d', 'post_max_size=66M', '-S', "127.0.0.1:$port", '-t', $root.'/public',
            $root.'/public/router.php',
        ], ['PHP_CLI_SERVER_WORKERS' => '4']);
        self::awaitPort($port);
        if ($browser) {
            $this->openBrowser();
        }
    }

    /** The demo project is loaded once a process; every further office starts with a copy of it. */
    private static function keepLoaded(string $folder): void
    {
        $files = new Filesystem();
        $kept = $folder.'-loaded';
        $files->mirror($folder, $kept);
        self::$loaded = $kept;
        register_shutdown_function(static fn () => $files->remove($kept));
    }

    /** In memory where there is room: what is written, and taken away again, costs nothing there. */
    private static function disk(): string
    {
        $memory = '/dev/shm';

        return is_writable($memory) && disk_free_space($memory) > self::ROOM ? $memory : self::root().'/var';
    }

    public static function root(): string
    {
        return \dirname(__DIR__, 2);
    }

    public function console(string ...$arguments): string
    {
        $process = new Process(
            ['php', '-d', 'memory_limit=1G', self::root().'/bin/console', ...$arguments], self::root(),
            $this->environment, null, 120,
        );
        $process->mustRun();

        return $process->getOutput();
    }

    /** The supervised worker, as bin/mensura serve starts it. */
    public function startWorker(): Process
    {
        return $this->start([self::root().'/bin/mensura', 'worker']);
    }

    private function openBrowser(): void
    {
        $port = self::freePort();
        $this->start(['chromedriver', "--port=$port", '--silent']);
        self::awaitPort($port);
        $options = new ChromeOptions();
        $options->addArguments([
            '--headless=new', '--no-sandbox', '--disable-gpu', '--disable-quic', '--no-first-run',
            '--disable-background-networking', '--disable-component-update', '--disable-sync',
            '--use-angle=swiftshader', '--enable-unsafe-swiftshader', '--force-device-scale-factor=1',
            '--hide-scrollbars', '--window-size=1280,800', '--user-data-dir='.$this->folder.'/chromium',
        ]);
        $options->setExperimentalOption('prefs', ['download.default_directory' => $this->folder]);
        $capabilities = DesiredCapabilities::chrome();
        $capabilities->setCapability(ChromeOptions::CAPABILITY, $options);
        $this->driver = RemoteWebDriver::create("http://127.0.0.1:$port", $capabilities, 60000, 60000);
        $this->driver->manage()->timeouts()->setScriptTimeout(60);
        $this->resize(1280, 800);
    }

    /** Sets the size of the page, not of the window around it. */
    public function resize(int $width, int $height): void
    {
        $this->driver->manage()->window()->setSize(new WebDriverDimension($width, $height));
        [$w, $h] = $this->driver->executeScript('return [window.innerWidth, window.innerHeight]');
        $this->driver->manage()->window()->setSize(new WebDriverDimension($width + $width - $w, $height + $height - $h));
    }

    public function signIn(string $username = 'demo', string $password = 'open field book'): void
    {
        $this->driver->get($this->url.'/sign-in');
        $this->find('#username')->sendKeys($username);
        $this->find('#password')->sendKeys($password);
        $this->click('button[type=submit]');
        $this->see('Projects');
    }

    public function go(string $path): void
    {
        $this->driver->get($this->url.$path);
    }

    public function find(string $css, float $seconds = 15.0): WebDriverElement
    {
        return $this->await(
            fn (): ?WebDriverElement => $this->driver->findElements(WebDriverBy::cssSelector($css))[0] ?? null,
            "element $css",
            $seconds,
        );
    }

    public function click(string $css): void
    {
        $this->await(function () use ($css): ?bool {
            $element = $this->driver->findElements(WebDriverBy::cssSelector($css))[0] ?? null;
            if (null === $element || !$element->isEnabled()) {
                return null;
            }
            $element->click();

            return true;
        }, "clickable $css");
    }

    /** Clicks the first button, tab or element of a kind whose text is this. */
    public function press(string $text, string $tag = 'button, [role=tab]'): void
    {
        $this->await(function () use ($text, $tag): ?bool {
            foreach ($this->driver->findElements(WebDriverBy::cssSelector($tag)) as $element) {
                if (str_contains($element->getText(), $text) && $element->isDisplayed() && $element->isEnabled()) {
                    $element->click();

                    return true;
                }
            }

            return null;
        }, "$tag saying \"$text\"");
    }

    /** Opens a list and takes the entry that says this. */
    public function choose(string $css, string $text): void
    {
        $this->await(function () use ($css, $text): ?bool {
            $at = $this->driver->findElements(WebDriverBy::cssSelector($css))[0] ?? null;
            $list = $at?->findElements(WebDriverBy::xpath(
                "(ancestor-or-self::*[contains(@class, 'el-select')])//*[contains(@class, 'el-select__wrapper')]",
            ))[0] ?? null;
            if (null === $list) {
                return null;
            }
            $list->click();
            $typed = $list->findElements(WebDriverBy::cssSelector('input:not([readonly])'))[0] ?? null;
            if (null !== $typed) {
                $typed->sendKeys($text);
                usleep(450000); // What is typed is searched when the hand rests.
            }
            // The list unfolds; what it holds may still be on its way.
            for ($look = 0; $look < 25; ++$look) {
                usleep(80000);
                $items = array_filter(
                    $this->driver->findElements(WebDriverBy::cssSelector('.el-select-dropdown__item')),
                    static fn (WebDriverElement $i): bool => $i->isDisplayed() && str_contains($i->getText(), $text),
                );
                // The one that says just this goes before one that says it among others.
                usort(
                    $items,
                    static fn (WebDriverElement $i, WebDriverElement $j): int => \strlen($i->getText()) <=> \strlen($j->getText()),
                );
                if ([] !== $items) {
                    $items[0]->click();

                    return true;
                }
            }

            return null;
        }, "entry \"$text\" of $css");
    }

    /** Waits until nothing moves: what slides has arrived, what loads is there, and the page says the same twice. */
    public function settle(): void
    {
        $this->driver->executeAsyncScript(<<<'JS'
            const done = arguments[arguments.length - 1];
            let before = '';
            let still = 0;
            const look = () => {
              const moving = document.getAnimations().filter((a) => a.playState === 'running').length;
              const now = `${document.body.innerHTML.length} ${moving}`;
              still = now === before && moving === 0 ? still + 1 : 0;
              before = now;
              if (still >= 3) done();
              else setTimeout(() => requestAnimationFrame(look), 40);
            };
            look();
            JS);
    }

    public function see(string $text, float $seconds = 15.0): void
    {
        $this->await(fn (): ?bool => str_contains($this->text(), $text) ? true : null, "text \"$text\"", $seconds);
    }

    /** To the end of every table: what came last stands there. */
    public function scroll(): void
    {
        $this->settle();
        $this->driver->executeScript(
            "document.querySelectorAll('*').forEach((e) => { if (e.scrollHeight > e.clientHeight + 40) e.scrollTop = e.scrollHeight; })",
        );
    }

    public function text(): string
    {
        return (string) $this->driver->executeScript('return document.body.innerText');
    }

    public function type(string $css, string $text): void
    {
        $element = $this->find($css);
        $element->sendKeys(WebDriverKeys::CONTROL.'a');
        $element->sendKeys($text);
    }

    /** What has the focus may be drawn anew just then: nothing was typed then, and it is typed again. */
    public function keys(string ...$keys): void
    {
        $this->await(function () use ($keys): bool {
            $this->driver->getKeyboard()->sendKeys(implode('', $keys));

            return true;
        }, 'the page to take keys');
    }

    /** Drops files on the page as a hand would: through the file input the page itself uses. */
    public function bring(string ...$paths): void
    {
        // A driver adds to what was chosen before; a hand begins anew.
        $this->find('[data-test=files] input[type=file]');
        $this->driver->executeScript("document.querySelector('[data-test=files] input[type=file]').value = ''");
        $this->find('[data-test=files] input[type=file]')->sendKeys(implode("\n", $paths));
    }

    /**
     * @template T
     *
     * @param callable(): ?T $condition
     *
     * @return T
     */
    public function await(callable $condition, string $what, float $seconds = 15.0): mixed
    {
        $end = microtime(true) + $seconds;
        do {
            try {
                $value = $condition();
                if (null !== $value) {
                    return $value;
                }
            } catch (\Facebook\WebDriver\Exception\WebDriverException) {
                // The page changed under us; look again.
            }
            usleep(80000);
        } while (microtime(true) < $end);
        throw new \RuntimeException(
            "Waited {$seconds} s for $what. The page says:\n".(isset($this->driver) ? substr($this->text(), 0, 2500) : ''),
        );
    }

    public function shoot(string $path): void
    {
        $this->settle();
        $this->driver->takeScreenshot($path);
    }

    /** @return list<string> what the browser's console complained about */
    public function complaints(): array
    {
        return array_values(array_map(static fn (array $l): string => $l['message'], array_filter(
            $this->driver->manage()->getLog('browser'),
            static fn (array $l): bool => 'SEVERE' === $l['level'] && !str_contains($l['message'], '401') && !str_contains(
                $l['message'], '422',
            ),
        )));
    }

    public function close(): void
    {
        if (isset($this->driver)) {
            $this->driver->quit();
        }
        // Whole groups: PHP's server and the supervisor have children of their own.
        foreach (array_reverse($this->processes) as $process) {
            if (null !== $pid = $process->getPid()) {
                posix_kill(-$pid, \SIGKILL);
            }
            $process->stop(0.2, \SIGKILL);
        }
        (new Process(['rm', '-rf', $this->folder]))->run();
    }

    /**
     * @param list<string>          $command
     * @param array<string, string> $more
     */
    private function start(array $command, array $more = []): Process
    {
        $process = new Process(['setsid', ...$command], self::root(), $this->environment + $more, null, null);
        $process->disableOutput();
        $process->start();
        $this->processes[] = $process;

        return $process;
    }

    public static function freePort(): int
    {
        $socket = stream_socket_server('tcp://127.0.0.1:0') ?: throw new \RuntimeException('No free port.');
        $name = (string) stream_socket_get_name($socket, false);
        fclose($socket);

        return (int) substr($name, (int) strrpos($name, ':') + 1);
    }

    private static function awaitPort(int $port): void
    {
        for ($i = 0; $i < 150; ++$i) {
            $connection = @fsockopen('127.0.0.1', $port, $code, $message, 0.2);
            if (false !== $connection) {
                fclose($connection);

                return;
            }
            usleep(100000);
        }
        throw new \RuntimeException("Nothing listens on port $port.");
    }
}
