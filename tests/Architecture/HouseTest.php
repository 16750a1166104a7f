<?php

declare(strict_types=1);

namespace App\Tests\Architecture;

use App\Store\Journaled;
use App\Tests\ApiTestCase;
use Doctrine\ORM\Tools\SchemaValidator;

/** What the static rules cannot see: every folder has its place, tables are as mapped, statements stand in repositories. */
final class HouseTest extends ApiTestCase
{
    private const ROOT = __DIR__.'/../..';

    public function testEveryFolderHasItsPlace(): void
    {
        $names = static fn (string $glob): array => array_map(basename(...), glob(self::ROOT.$glob, \GLOB_ONLYDIR) ?: []);
        self::assertEqualsCanonicalizing(array_keys(Arrows::CORE), $names('/core/src/*'));
        self::assertEqualsCanonicalizing([...Arrows::STACK, ...Arrows::STAGES], $names('/src/*'));
    }

    public function testTheTablesAreAsTheyAreMapped(): void
    {
        $validator = new SchemaValidator($this->entities());
        self::assertSame([], $validator->validateMapping());
        // The migrations keep their own table.
        self::assertSame(['DROP TABLE doctrine_migration_versions'], $validator->getUpdateSchemaList());
    }

    public function testEveryTableIsAnEntityWithARepository(): void
    {
        $mapped = [];
        foreach ($this->entities()->getMetadataFactory()->getAllMetadata() as $class) {
            if ($class->isMappedSuperclass) {
                continue; // what entities share has no table of its own
            }
            $mapped[] = $class->getTableName();
            self::assertNotNull($class->customRepositoryClassName, $class->getName());
        }
        $tables = $this->database()->fetchFirstColumn("SELECT name FROM sqlite_master WHERE type = 'table' AND name NOT LIKE 'sqlite_%'");
        self::assertEqualsCanonicalizing(array_diff($tables, ['doctrine_migration_versions', 'messenger_messages']), $mapped);
    }

    public function testStatementsStandInRepositories(): void
    {
        $found = [];
        foreach ($this->sources('/src') as $file => $text) {
            if (1 === preg_match('/[\'"](SELECT|INSERT INTO|UPDATE \w+ SET|DELETE FROM) /', $text)
                && 1 !== preg_match('/(Repository|BulkRows)\.php$/', $file)
            ) {
                $found[] = $file;
            }
        }
        self::assertSame([], $found);
    }

    public function testFilesOfAWebServerCarryTheSameHeadersAsPages(): void
    {
        preg_match_all('/^add_header (\S+) "(.*)" always;$/m', (string) file_get_contents(self::ROOT.'/config/nginx-headers.conf'), $m);
        self::assertSame(require self::ROOT.'/config/headers.php', array_combine($m[1], $m[2]));
    }

    public function testLinesCanBeReadAtOnce(): void
    {
        foreach (['/core', '/src', '/batch', '/demo/src', '/tests', '/bench'] as $folder) {
            foreach ($this->sources($folder) as $file => $text) {
                foreach (explode("\n", $text) as $i => $line) {
                    self::assertLessThanOrEqual(140, mb_strlen($line), $file.' line '.($i + 1));
                }
            }
        }
    }

    public function testARepositorySaysWhyItSpeaksSql(): void
    {
        foreach ($this->sources('/src') as $file => $text) {
            if (str_ends_with($file, 'Repository.php') && 1 === preg_match('/->(fetch|iterate|executeStatement)|BulkRows\(/', $text)) {
                self::assertStringContainsString('in SQL', preg_replace('/In SQL/', 'in SQL', $text) ?? '', $file);
            }
        }
    }

    public function testWhatOperationsChangeIsChangedByOperationsOnly(): void
    {
        $project = $this->entities()->find(\App\Project\Project::class, $this->project);
        self::assertInstanceOf(Journaled::class, $project);
        $project->refer('EPSG:25831', 'ellipsoidal', '');
        $this->expectException(\LogicException::class);
        $this->expectExceptionMessage('is changed by operations only');
        $this->entities()->flush();
    }

    /** @return iterable<string, string> text by path */
    private function sources(string $folder): iterable
    {
        foreach (new \RecursiveIteratorIterator(new \RecursiveDirectoryIterator(
            self::ROOT.$folder, \FilesystemIterator::SKIP_DOTS,
        )) as $file) {
            \assert($file instanceof \SplFileInfo);
            if ('php' === $file->getExtension()) {
                yield substr($file->getPathname(), \strlen(self::ROOT)) => (string) file_get_contents($file->getPathname());
            }
        }
    }
}
