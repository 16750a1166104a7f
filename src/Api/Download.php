<?php

declare(strict_types=1);

namespace App\Api;

use Symfony\Component\HttpFoundation\BinaryFileResponse;
use Symfony\Component\HttpFoundation\HeaderUtils;
use Symfony\Component\HttpFoundation\Response;

/** A file to keep, under a name that is safe anywhere. */
final class Download
{
    public static function file(string $path, string $name, string $type): Response
    {
        $response = new BinaryFileResponse($path, 200, ['Content-Type' => $type], autoEtag: false, autoLastModified: false);
        $response->headers->set('Content-Disposition', self::disposition($name));

        return $response;
    }

    public static function text(string $contents, string $name, string $type): Response
    {
        return new Response($contents, 200, ['Content-Type' => $type, 'Content-Disposition' => self::disposition($name)]);
    }

    private static function disposition(string $name): string
    {
        $name = str_replace(['/', '\\'], '_', $name);
        $plain = preg_replace('/[^A-Za-z0-9._-]/', '_', $name) ?? 'file';

        return HeaderUtils::makeDisposition(HeaderUtils::DISPOSITION_ATTACHMENT, $name, $plain);
    }
}
