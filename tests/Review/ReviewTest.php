<?php

declare(strict_types=1);

namespace App\Tests\Review;

use App\Project\Membership;
use App\Project\Project;
use App\Project\Role;
use App\Tests\ApiTestCase;
use Demo\Heap;
use Symfony\Component\Process\Process;

/** Remarks, answers and checks; a check stands in what is handed over, and falls away with what it was of. */
final class ReviewTest extends ApiTestCase
{
    private int $surface;

    protected function setUp(): void
    {
        parent::setUp();
        $this->accept(Heap::MAY, (new Heap())->survey(false));
        $this->surface = $this->post('/terrain/surfaces', ['name' => 'May', 'roles' => ['surveyed'], 'interval' => 1], 202)['surface'];
    }

    private function beReviewer(): void
    {
        $reviewer = $this->account('rita');
        $project = $this->entities()->find(Project::class, $this->project) ?? self::fail('no project');
        $this->entities()->persist(new Membership($reviewer, $project, Role::Reviewer));
        $this->entities()->flush();
        $this->signIn($reviewer);
    }

    public function testAReviewerSaysAndTheWorkIsAnsweredFor(): void
    {
        $owner = $this->get('/api/session')['user'];
        $this->beReviewer();
        $about = 'surface:'.$this->surface;
        $this->post('/remarks', ['about' => $about, 'text' => 'Is the peg in it?']);
        $first = $this->get("/remarks/$about")[0];
        self::assertSame(['Rita', 'Is the peg in it?', false], [$first['author'], $first['text'], $first['checks']]);
        $this->post('/remarks', ['about' => $about, 'text' => 'No, set aside.', 'answers' => $first['id']]);
        self::assertSame([0, $first['id']], array_column($this->get("/remarks/$about"), 'answers'));
        $this->post('/remarks', ['about' => 'point:KT 07/ü', 'text' => 'Leans.']);
        self::assertSame('Leans.', $this->get('/remarks/'.rawurlencode('point:KT 07/ü'))[0]['text']);
        // What she says changes nothing of the work, and she may change nothing else.
        self::assertSame([], $this->stale());
        $this->post('/recompute', [], 403);
        self::assertNotSame('', $owner);
        foreach ([[['about' => $about], '/text'], [['about' => 'surface:99', 'text' => 'x'], '/about']] as [$body, $pointer]) {
            self::assertSame($pointer, $this->post('/remarks', $body, 422)['errors'][0]['pointer']);
        }
    }

    public function testACheckStandsInReportAndPackageAndFallsAway(): void
    {
        $this->job('/terrain/volumes', ['name' => 'to 228', 'surface' => $this->surface, 'against' => 'elevation', 'elevation' => 228.0]);
        $volume = $this->get('/terrain')['volumes'][0]['number'];
        $package = $this->post('/handover/packages', ['name' => 'p', 'surfaces' => [$this->surface]])['package'];
        $this->call('PUT', '/handover/letterhead', ['letterhead' => "Tarn Survey Office\n1 Shore Lane"], 200);
        foreach (['surface:'.$this->surface, 'volume:'.$volume] as $about) {
            $this->post('/remarks', ['about' => $about, 'checks' => true]);
            self::assertTrue($this->get("/remarks/$about")[0]['stands']);
        }
        $this->job('/handover', ['kind' => 'volume-pdf', 'surfaces' => [$volume]]);
        $this->job('/handover', ['kind' => 'package', 'surfaces' => [$package]]);
        $exports = array_column($this->get('/handover')['exports'], 'id', 'kind');
        $path = (string) tempnam(sys_get_temp_dir(), 'report');
        file_put_contents($path, $this->download("/handover/{$exports['volume-pdf']}/file"));
        $text = (new Process(['pdftotext', '-layout', $path, '-']))->mustRun()->getOutput();
        self::assertMatchesRegularExpression('/Tarn Survey Office\s+1 Shore Lane\s+Checked by /', $text);
        // The same report to be read on a screen: its head, its check, its pictures and every row.
        $this->job('/handover', ['kind' => 'volume-html', 'surfaces' => [$volume]]);
        $twin = array_column($this->get('/handover')['exports'], null, 'kind')['volume-html'];
        self::assertTrue($twin['holds'], json_encode($twin['checks'], \JSON_THROW_ON_ERROR));
        $html = $this->download("/handover/{$twin['id']}/file");
        $page = new \DOMDocument();
        $page->loadHTML($html, \LIBXML_NOERROR);
        $said = (string) preg_replace('/\s+/', ' ', $page->getElementsByTagName('body')->item(0)->textContent ?? '');
        self::assertMatchesRegularExpression('/^ ?Tarn Survey Office 1 Shore Lane Checked by .*volume report/', $said);
        foreach (['polyline', 'image', 'text', 'td'] as $element) {
            self::assertGreaterThan(1, $page->getElementsByTagName($element)->length + ('image' === $element ? 1 : 0), $element);
        }
        $figures = $this->get('/terrain')['volumes'][0];
        self::assertStringContainsString(\sprintf('%.1f', $figures['cut']), $said);
        self::assertStringContainsString(\sprintf('%.1f', $figures['cut']), $text);
        file_put_contents($path, $this->download("/handover/{$exports['package']}/file"));
        $zip = new \ZipArchive();
        $zip->open($path);
        $manifest = json_decode((string) $zip->getFromName('manifest.json'), true, 16, \JSON_THROW_ON_ERROR);
        self::assertMatchesRegularExpression('/^Surface May, run 1, checked by .+ UTC$/', $manifest['items'][0]['from']);
        unlink($path);

        // What it rests on changes: the check is there no more, and says why; computed again it does not come back by itself.
        $head = 'point,easting [m],northing [m],ellipsoidal height [m]';
        $this->accept('one.csv', \sprintf("$head\nX,%.1f,%.1f,240\n", Heap::EAST, Heap::NORTH));
        $fallen = $this->get('/remarks/surface:'.$this->surface)[0];
        self::assertFalse($fallen['stands']);
        self::assertStringContainsString('points', $fallen['why']);
        $this->job('/recompute');
        $fallen = $this->get('/remarks/surface:'.$this->surface)[0];
        self::assertSame([false, 'run 2 is another'], [$fallen['stands'], $fallen['why']]);
        $this->post('/remarks', ['about' => 'surface:'.$this->surface, 'checks' => true]);
        self::assertSame([false, true], array_column($this->get('/remarks/surface:'.$this->surface), 'stands'));
    }
}
