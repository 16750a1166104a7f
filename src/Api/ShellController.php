<?php

declare(strict_types=1);

namespace App\Api;

use Symfony\Component\DependencyInjection\Attribute\Autowire;
use Symfony\Component\HttpFoundation\Response;
use Symfony\Component\Routing\Attribute\Route;
use Twig\Environment;

/** The page every address of the interface loads; the rest is the front end's. */
final class ShellController
{
    public function __construct(private readonly Environment $twig, #[Autowire('%kernel.project_dir%')] private readonly string $root)
    {
    }

    #[Route('/{path}', name: 'shell', requirements: ['path' => '^(?!api/|build/).*'], priority: -100, methods: 'GET')]
    public function __invoke(): Response
    {
        $manifest = @file_get_contents($this->root.'/public/build/.vite/manifest.json');
        $entry = false === $manifest ? null : json_decode($manifest, true, 16, \JSON_THROW_ON_ERROR)['src/main.ts'] ?? null;

        return new Response($this->twig->render('shell.html.twig', ['script' => $entry['file'] ?? null, 'styles' => $entry['css'] ?? []]));
    }
}
