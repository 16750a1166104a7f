<?php

declare(strict_types=1);

namespace App\Tests\HandOver;

use App\Tests\ApiTestCase;
use Demo\Heap;
use Demo\SiteLines;
use Symfony\Component\Process\Process;

/** Sheets are measured in the file by poppler, that shares nothing with what wrote it. */
final class SheetTest extends ApiTestCase
{
    private const MM = 72.0 / 25.4;

    private int $surface;

    protected function setUp(): void
    {
        parent::setUp();
        $this->accept(Heap::MAY, (new Heap())->survey(false));
        $this->accept(SiteLines::FILE, (new SiteLines())->design());
        $surface = ['name' => 'May', 'roles' => ['surveyed'], 'codes' => ['HEAP'], 'interval' => 1];
        $this->surface = $this->post('/terrain/surfaces', $surface, 202)['surface'];
    }

    /** @param array<string, mixed> $more */
    private function view(array $more = []): int
    {
        $file = array_column($this->get('/handover/sheets')['layers'], 'file', 'layer')['KERB'];

        return $this->post('/handover/views', $more + [
            'name' => 'heap', 'roles' => ['surveyed'], 'surfaces' => [['id' => $this->surface, 'contours' => true, 'lines' => true]],
            'layers' => [['file' => $file, 'layer' => 'KERB', 'colour' => 'amber', 'width' => 0.35]], 'screenOnly' => ['KERB'],
        ])['view'];
    }

    /** @return array<string, mixed> */
    private static function window(int $view, float $scale, float $rotation = 0.0): array
    {
        return [
            'view' => $view, 'x' => 15.0, 'y' => 15.0, 'width' => 380.0, 'height' => 220.0, 'scale' => $scale, 'e' => Heap::EAST,
            'n' => Heap::NORTH, 'rotation' => $rotation, 'frame' => 'screen', 'grid' => true, 'coordinates' => true, 'north' => true,
            'bar' => true, 'legend' => true,
        ];
    }

    /**
     * Words of a page with the left lower corner each begins at, in millimetres.
     *
     * @return array<string, array{float, float}>
     */
    private function words(string $pdf, int $page = 1): array
    {
        $path = (string) tempnam(sys_get_temp_dir(), 'sheet');
        file_put_contents($path, $pdf);
        $xml = (new Process(['pdftotext', '-bbox', '-f', (string) $page, '-l', (string) $page, $path, '-']))->mustRun()->getOutput();
        unlink($path);
        $word = '/<word xMin="([\d.]+)" yMin="[\d.]+" xMax="[\d.]+" yMax="([\d.]+)">([^<]*)<\/word>/';
        preg_match_all($word, $xml, $found, \PREG_SET_ORDER);
        $words = [];
        foreach ($found as [, $x, $y, $text]) {
            $words[$text] ??= [(float) $x / self::MM, (float) $y / self::MM];
        }

        return $words;
    }

    public function testADrawingIsTrueToScale(): void
    {
        $view = $this->view();
        $places = array_column($this->get('/points')['points'], null, 'name');
        foreach ([[500.0, 0.0, 'A3'], [250.0, 30.0, 'A2'], [1000.0, -75.0, 'ANSI C']] as [$scale, $rotation, $size]) {
            $sheet = ['name' => "at $scale", 'size' => $size, 'windows' => [self::window($view, $scale, $rotation)]];
            $sheet['fields'] = ['title' => 'The heap', 'number' => '17'];
            $id = $this->post('/handover/sheets', $sheet)['sheet'];
            $job = $this->job('/handover', ['kind' => 'sheet', 'surfaces' => [$id]]);
            self::assertSame('done', $job['state'], (string) $job['error']);
            $export = $this->get('/handover')['exports'][0];
            self::assertTrue($export['holds'], json_encode($export['checks'], \JSON_THROW_ON_ERROR));
            $newest = array_column($this->get('/handover')['exports'], null, 'slot')["export:sheet:$id"];
            $words = $this->words($this->download("/handover/{$newest['id']}/file"));
            $names = array_values(array_filter(array_keys($words), static fn (string|int $w): bool => isset($places[$w])));
            self::assertGreaterThan(30, \count($names));
            // Every name stands as far beside its point: what is between two names is what is between two points.
            $first = $names[0];
            foreach (\array_slice($names, 1) as $name) {
                $paper = hypot($words[$name][0] - $words[$first][0], $words[$name][1] - $words[$first][1]);
                $ground = hypot($places[$name]['e'] - $places[$first]['e'], $places[$name]['n'] - $places[$first]['n']);
                self::assertEqualsWithDelta(1000.0 * $ground / $scale, $paper, 0.1, "$name at 1:$scale");
            }
        }
    }

    public function testASetIsOneFileWithPapersOfTheirSizes(): void
    {
        $view = $this->view();
        $ids = [];
        foreach (['A4' => [297.0, 210.0], 'A1' => [841.0, 594.0], 'ARCH D' => [914.4, 609.6]] as $size => $paper) {
            $table = ['key' => 'coordinates', 'x' => 100.0, 'y' => 20.0, 'width' => 90.0];
            $sheet = ['name' => $size, 'size' => $size, 'windows' => [self::window($view, 1000.0)], 'tables' => [$table]];
            $ids[] = $this->post('/handover/sheets', $sheet)['sheet'];
        }
        $this->job('/handover', ['kind' => 'sheet', 'surfaces' => $ids]);
        $export = $this->get('/handover')['exports'][0];
        self::assertTrue($export['holds'], json_encode($export['checks'], \JSON_THROW_ON_ERROR));
        $path = (string) tempnam(sys_get_temp_dir(), 'set');
        file_put_contents($path, $this->download("/handover/{$export['id']}/file"));
        $info = (new Process(['pdfinfo', '-f', '1', '-l', '3', $path]))->mustRun()->getOutput();
        preg_match_all('/Page\s+\d+ size:\s+([\d.]+) x ([\d.]+)/', $info, $sizes);
        foreach ([[297.0, 210.0], [841.0, 594.0], [914.4, 609.6]] as $i => $paper) {
            self::assertEqualsWithDelta($paper, [(float) ($sizes[1][$i] ?? 0) / self::MM, (float) ($sizes[2][$i] ?? 0) / self::MM], 0.05);
        }
        // What is for the screen only is a layer that does not print (ISO 32000-1, 8.11.4.4).
        $bytes = (string) file_get_contents($path);
        self::assertStringContainsString('/OCProperties', $bytes);
        self::assertMatchesRegularExpression('/\/Print <<\/PrintState \/OFF>>/', $bytes);
        unlink($path);
    }

    public function testALockedViewStaysUntilAsked(): void
    {
        $view = $this->view();
        $this->call('PUT', "/handover/views/$view/lock", ['locked' => true], 200);
        $free = $this->view(['name' => 'free']);
        $ids = array_map(fn (int $v): int => $this->post('/handover/sheets', [
            'name' => "sheet $v", 'windows' => [self::window($v, 500.0)],
        ])['sheet'], [$view, $free]);
        foreach ($ids as $id) {
            $this->job('/handover', ['kind' => 'sheet', 'surfaces' => [$id]]);
        }
        $head = 'point,easting [m],northing [m],ellipsoidal height [m],code';
        $this->accept('one.csv', \sprintf("$head\nNEW,%.1f,%.1f,240,HEAP\n", Heap::EAST, Heap::NORTH));
        $stale = $this->stale();
        self::assertArrayNotHasKey("export:sheet:{$ids[0]}", $stale, 'A locked view does not follow.');
        self::assertArrayHasKey("export:sheet:{$ids[1]}", $stale);
        $preview = fn (int $v): array => $this->words($this->pdf(['name' => 'p', 'windows' => [self::window($v, 500.0)]]));
        self::assertArrayNotHasKey('NEW', $preview($view));
        $this->job('/recompute');
        self::assertArrayHasKey('NEW', $preview($free));
        // Asked, it looks again; and its sheet goes stale for it.
        $this->call('PUT', "/handover/views/$view/lock", ['locked' => true], 200);
        self::assertArrayHasKey('NEW', $preview($view));
        self::assertArrayHasKey("export:sheet:{$ids[0]}", $this->stale());
    }

    public function testScalesThatFitAreProposedAndNonsenseIsRefused(): void
    {
        $view = $this->view();
        $fit = $this->post('/handover/sheets/fit', ['view' => $view, 'width' => 380.0, 'height' => 220.0]);
        $points = $this->get('/points')['points'];
        $eastings = [...array_column($points, 'e'), Heap::EAST];
        $wide = 1000.0 * (max($eastings) - min($eastings)) / 380.0;
        self::assertGreaterThanOrEqual($wide, $fit['scales'][0]);
        self::assertSame($fit['scales'], array_values(array_unique($fit['scales'])));
        $refused = [
            [['name' => 'x', 'size' => 'B5'], '/size'], [['name' => 'x', 'windows' => [self::window(999, 500.0)]], '/windows/0/view'],
            [['name' => 'x', 'windows' => [['scale' => 0.0] + self::window($view, 500.0)]], '/windows/0/scale'],
        ];
        foreach ($refused as [$body, $pointer]) {
            self::assertSame($pointer, $this->post('/handover/sheets', $body, 422)['errors'][0]['pointer']);
        }
        $this->post('/handover/sheets', ['name' => 'kept', 'windows' => [self::window($view, 500.0)]]);
        self::assertStringContainsString('sheet kept shows this view', $this->call('DELETE', "/handover/views/$view", null, 422)['detail']);
        $job = $this->job('/handover', ['kind' => 'sheet', 'surfaces' => []]);
        self::assertStringContainsString('choose the sheets', (string) $job['error']);
    }

    /** @param array<string, mixed> $sheet */
    private function pdf(array $sheet): string
    {
        $this->client->request('POST', "/api/projects/{$this->project}/handover/sheets/preview", [], [], [
            'CONTENT_TYPE' => 'application/json', 'HTTP_X_MENSURA_TOKEN' => $this->token,
        ], json_encode($sheet, \JSON_THROW_ON_ERROR));
        self::assertSame(200, $this->client->getResponse()->getStatusCode());

        return $this->client->getInternalResponse()->getContent();
    }
}
